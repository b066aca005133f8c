import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Where copies of the studio are laid (empty: beside it), and how many are kept. */
export class Copies1764350000000 implements MigrationInterface {
  name = 'Copies1764350000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "settings" ADD COLUMN "copiesFolder" text NOT NULL DEFAULT ''`);
    await runner.query(`ALTER TABLE "settings" ADD COLUMN "copiesKept" integer NOT NULL DEFAULT 30`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "settings" DROP COLUMN "copiesFolder"`);
    await runner.query(`ALTER TABLE "settings" DROP COLUMN "copiesKept"`);
  }
}

import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How well the painter measures: a usual knife is good to a tenth. */
export class Knife1764300000000 implements MigrationInterface {
  name = 'Knife1764300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "settings" ADD COLUMN "knife" real NOT NULL DEFAULT 0.1`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "settings" DROP COLUMN "knife"`);
  }
}

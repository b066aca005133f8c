import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How well the painter measures (a usual knife is good to a tenth), and how this painter dulls a colour. */
export class KnifeAndDulling1764300000000 implements MigrationInterface {
  name = 'KnifeAndDulling1764300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "settings" ADD COLUMN "knife" real NOT NULL DEFAULT 0.1`);
    await runner.query(`ALTER TABLE "settings" ADD COLUMN "dulling" text NOT NULL DEFAULT 'any'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "settings" DROP COLUMN "knife"`);
    await runner.query(`ALTER TABLE "settings" DROP COLUMN "dulling"`);
  }
}

import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The way in which the painter measures, and the usual size of a pile. */
export class Measuring1764900000000 implements MigrationInterface {
  name = 'Measuring1764900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "settings" ADD COLUMN "measure" text NOT NULL DEFAULT 'parts'`);
    await runner.query(`ALTER TABLE "settings" ADD COLUMN "amountMl" real NOT NULL DEFAULT 4`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "settings" DROP COLUMN "amountMl"`);
    await runner.query(`ALTER TABLE "settings" DROP COLUMN "measure"`);
  }
}

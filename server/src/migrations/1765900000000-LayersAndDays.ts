import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A painting stands on something and has to be ready some day; a room has a warmth, and a painter a list for what is finished. */
export class LayersAndDays1765900000000 implements MigrationInterface {
  name = 'LayersAndDays1765900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "painting" ADD COLUMN "about" text NOT NULL DEFAULT ('{}')`);
    await runner.query(`ALTER TABLE "settings" ADD COLUMN "temperatureC" real`);
    await runner.query(`ALTER TABLE "settings" ADD COLUMN "finishing" text NOT NULL DEFAULT ('[]')`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "settings" DROP COLUMN "finishing"`);
    await runner.query(`ALTER TABLE "settings" DROP COLUMN "temperatureC"`);
    await runner.query(`ALTER TABLE "painting" DROP COLUMN "about"`);
  }
}

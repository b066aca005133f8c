import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A painting keeps between two values; a colour that was noted before the view says in what light. */
export class Deciding1765600000000 implements MigrationInterface {
  name = 'Deciding1765600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "painting" ADD COLUMN "between" text`);
    await runner.query(`ALTER TABLE "sample" ADD COLUMN "light" text NOT NULL DEFAULT ('')`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "sample" DROP COLUMN "light"`);
    await runner.query(`ALTER TABLE "painting" DROP COLUMN "between"`);
  }
}

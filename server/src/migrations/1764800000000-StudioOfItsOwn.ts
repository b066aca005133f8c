import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A studio is told from every other: what waits in a browser goes to the one it was done in. */
export class StudioOfItsOwn1764800000000 implements MigrationInterface {
  name = 'StudioOfItsOwn1764800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "settings" ADD COLUMN "studioId" text NOT NULL DEFAULT ''`);
    await runner.query(`UPDATE "settings" SET "studioId" = lower(hex(randomblob(16))), "version" = "version" + 1`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "settings" DROP COLUMN "studioId"`);
  }
}

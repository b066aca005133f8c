import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A studio is told from every other: what waits in a browser goes to the one it was done in. */
export class StudioOfItsOwn1764800000000 implements MigrationInterface {
  name = 'StudioOfItsOwn1764800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "settings" ADD COLUMN "studioId" text NOT NULL DEFAULT ''`);
    // The painter's settings are what they were: what watches over their version stands aside meanwhile.
    const triggers = (await runner.query(
      `SELECT "name", "sql" FROM sqlite_master WHERE "type" = 'trigger' AND "tbl_name" = 'settings'`,
    )) as {
      name: string;
      sql: string;
    }[];
    for (const { name } of triggers) await runner.query(`DROP TRIGGER "${name}"`);
    await runner.query(`UPDATE "settings" SET "studioId" = lower(hex(randomblob(16)))`);
    for (const { sql } of triggers) await runner.query(sql);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "settings" DROP COLUMN "studioId"`);
  }
}

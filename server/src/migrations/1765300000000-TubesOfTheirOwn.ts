import type { MigrationInterface, QueryRunner } from 'typeorm';

const ADDED: Readonly<Record<string, string>> = {
  version: 'integer NOT NULL DEFAULT (1)',
  pigments: "text NOT NULL DEFAULT ('[]')",
  density: 'real',
  drying: 'text',
  lightfastness: 'text',
  caution: 'text',
  sizeMl: 'real',
  leftMl: 'real',
  note: "text NOT NULL DEFAULT ('')",
  deletedAt: 'text',
};

/** What a painter writes of a tube carries a version; which state it is reckoned with does not, nobody writes that. */
const WRITTEN = ['name', 'maker', 'pigment', 'nozzleMm', ...Object.keys(ADDED)];

/** Tubes can be added, changed and put away, may be of several pigments, and have their own density, drying and cautions. */
export class TubesOfTheirOwn1765300000000 implements MigrationInterface {
  name = 'TubesOfTheirOwn1765300000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const [column, type] of Object.entries(ADDED)) await runner.query(`ALTER TABLE "tube" ADD COLUMN "${column}" ${type}`);
    await runner.query(`UPDATE "tube" SET "pigments" = json_array("pigment")`);
    await runner.query(
      `CREATE TRIGGER "tr_tube_version" BEFORE UPDATE OF ${WRITTEN.map((column) => `"${column}"`).join(', ')} ON "tube" FOR EACH ROW WHEN NEW."version" <> OLD."version" + 1 BEGIN SELECT RAISE(ABORT, 'the version of a tube goes up by one'); END`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TRIGGER "tr_tube_version"`);
    for (const column of Object.keys(ADDED)) await runner.query(`ALTER TABLE "tube" DROP COLUMN "${column}"`);
  }
}

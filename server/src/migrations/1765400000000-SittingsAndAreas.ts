import type { MigrationInterface, QueryRunner } from 'typeorm';

const refers = (table: string, column: string, to: string): string =>
  `CONSTRAINT "fk_${table}_${column.replace('Id', '')}" FOREIGN KEY ("${column}") REFERENCES "${to}" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION`;

const NEW_TABLES = [
  `CREATE TABLE "sitting" ("id" text PRIMARY KEY NOT NULL, "version" integer NOT NULL, "paletteId" text, "openedAt" text NOT NULL, "closedAt" text, "light" text NOT NULL DEFAULT (''), "guests" text NOT NULL DEFAULT ('[]'), "note" text NOT NULL DEFAULT (''), "deletedAt" text, ${refers('sitting', 'paletteId', 'palette')})`,
  `CREATE INDEX "ix_sitting_palette" ON "sitting" ("paletteId")`,
  `CREATE INDEX "ix_sitting_opened" ON "sitting" ("openedAt")`,
  `CREATE TABLE "device" ("id" text PRIMARY KEY NOT NULL, "version" integer NOT NULL, "name" text NOT NULL DEFAULT (''), "key" text, "since" text NOT NULL, "seen" text NOT NULL)`,
  `CREATE TABLE "area" ("id" text PRIMARY KEY NOT NULL, "version" integer NOT NULL, "paintingId" text NOT NULL, "name" text NOT NULL, "outline" text, "createdAt" text NOT NULL, "deletedAt" text, ${refers('area', 'paintingId', 'painting')})`,
  `CREATE INDEX "ix_area_painting" ON "area" ("paintingId")`,
  `CREATE TABLE "reading" ("id" text PRIMARY KEY NOT NULL, "sightingId" text NOT NULL, "tubeId" text NOT NULL, "patch" text NOT NULL, "lab" text NOT NULL, "filmUm" real, "at" text NOT NULL, "withdrawnAt" text, ${refers('reading', 'sightingId', 'sighting')}, ${refers('reading', 'tubeId', 'tube')})`,
  `CREATE INDEX "ix_reading_sighting" ON "reading" ("sightingId")`,
  `CREATE INDEX "ix_reading_tube" ON "reading" ("tubeId")`,
];

const STAGE = `"id" text PRIMARY KEY NOT NULL, "n" integer NOT NULL, "pileId" text, "areaId" text, "sittingId" text, "kind" text NOT NULL, "laid" text, "touch" text, "left" real, "at" text NOT NULL, "predicted" text, "withdrawnAt" text, ${refers('stage', 'pileId', 'pile')}, ${refers('stage', 'areaId', 'area')}, ${refers('stage', 'sittingId', 'sitting')}`;
const CARRIED = '"id", "n", "pileId", "kind", "left", "at", "predicted", "withdrawnAt"';

const aborts = (name: string, when: string, condition: string, says: string): string =>
  `CREATE TRIGGER "${name}" ${when} FOR EACH ROW WHEN ${condition} BEGIN SELECT RAISE(ABORT, '${says}'); END`;
const never = (table: string, columns: readonly string[]): string[] => [
  `CREATE TRIGGER "tr_${table}_fixed" BEFORE UPDATE OF ${columns.map((one) => `"${one}"`).join(', ')} ON "${table}" FOR EACH ROW BEGIN SELECT RAISE(ABORT, 'a ${table} is never changed'); END`,
  `CREATE TRIGGER "tr_${table}_kept" BEFORE DELETE ON "${table}" FOR EACH ROW BEGIN SELECT RAISE(ABORT, 'a ${table} is never deleted'); END`,
];
const version = (table: string, columns?: readonly string[]): string =>
  aborts(
    `tr_${table}_version`,
    `BEFORE UPDATE ${columns ? `OF ${columns.map((one) => `"${one}"`).join(', ')} ` : ''}ON "${table}"`,
    'NEW."version" <> OLD."version" + 1',
    `the version of a ${table} goes up by one`,
  );

const TRIGGERS = [
  ...never('stage', ['id', 'n', 'pileId', 'areaId', 'sittingId', 'kind', 'laid', 'touch', 'left', 'at', 'predicted']),
  ...never('reading', ['id', 'sightingId', 'tubeId', 'patch', 'lab', 'filmUm', 'at']),
  version('sitting'),
  version('area'),
  // When a device was seen is not written by anybody.
  version('device', ['version', 'name', 'key']),
  aborts(
    'tr_stage_of',
    'BEFORE INSERT ON "stage"',
    '(NEW."pileId" IS NULL) = (NEW."areaId" IS NULL)',
    'a stage is of a pile or of an area',
  ),
  aborts(
    'tr_stage_laid',
    'BEFORE INSERT ON "stage"',
    'NEW."areaId" IS NULL AND (NEW."laid" IS NOT NULL OR NEW."touch" IS NOT NULL)',
    'a pile is not laid',
  ),
  aborts(
    'tr_addition_from_pile',
    'BEFORE INSERT ON "addition"',
    'NEW."sourceId" IS NOT NULL AND (SELECT "pileId" FROM "stage" WHERE "id" = NEW."sourceId") IS NULL',
    'paint is taken from piles',
  ),
  aborts(
    'tr_look_at_pile',
    'BEFORE INSERT ON "look"',
    '(SELECT "pileId" FROM "stage" WHERE "id" = NEW."stageId") IS NULL',
    'a look is at a pile',
  ),
];

/** Sittings, areas of paintings with what was done with them, readings of swatches, and devices by name. */
export class SittingsAndAreas1765400000000 implements MigrationInterface {
  name = 'SittingsAndAreas1765400000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of NEW_TABLES) await runner.query(statement);
    // Whatever speaks of stages is laid aside while their table is made anew, and put back as it was.
    const speaking = (await runner.query(
      `SELECT "name", "sql" FROM "sqlite_master" WHERE "type" = 'trigger' AND "sql" LIKE '%"stage"%' AND "name" NOT IN ('tr_stage_fixed', 'tr_stage_kept')`,
    )) as { readonly name: string; readonly sql: string }[];
    for (const { name } of speaking) await runner.query(`DROP TRIGGER "${name}"`);
    await runner.query(`CREATE TABLE "new_stage" (${STAGE})`);
    await runner.query(`INSERT INTO "new_stage" (${CARRIED}) SELECT ${CARRIED} FROM "stage"`);
    await runner.query(`DROP TABLE "stage"`);
    await runner.query(`ALTER TABLE "new_stage" RENAME TO "stage"`);
    await runner.query(`CREATE UNIQUE INDEX "ux_stage_n" ON "stage" ("n")`);
    for (const column of ['pile', 'area', 'sitting']) await runner.query(`CREATE INDEX "ix_stage_${column}" ON "stage" ("${column}Id")`);
    for (const { sql } of speaking) await runner.query(sql);
    for (const trigger of TRIGGERS) await runner.query(trigger);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('There is no way back from areas: use the copy that was laid beside.'));
  }
}

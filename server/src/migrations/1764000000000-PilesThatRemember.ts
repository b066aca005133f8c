import { randomUUID } from 'node:crypto';
import type { MigrationInterface, QueryRunner } from 'typeorm';
import { TRIGGERS } from './1764000000000-triggers.ts';

/** A table that is made anew with other columns; its rows are carried over by name. */
interface Rebuilt {
  readonly table: string;
  readonly columns: string;
  readonly carried: readonly string[];
  readonly added?: Readonly<Record<string, string>>;
  readonly indices: readonly string[];
}

const REBUILT: readonly Rebuilt[] = [
  {
    table: 'tube',
    columns: `"id" text PRIMARY KEY NOT NULL, "name" text NOT NULL, "maker" text NOT NULL, "pigment" text NOT NULL, "nozzleMm" real NOT NULL, "createdAt" text NOT NULL, "stateId" text, CONSTRAINT "fk_tube_state_today" FOREIGN KEY ("stateId") REFERENCES "tube_state" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION`,
    carried: ['id', 'name', 'maker', 'pigment', 'nozzleMm', 'createdAt'],
    indices: [`CREATE INDEX "ix_tube_pigment" ON "tube" ("pigment")`, `CREATE INDEX "ix_tube_state_today" ON "tube" ("stateId")`],
  },
  {
    table: 'tube_state',
    columns: `"id" text PRIMARY KEY NOT NULL, "tubeId" text NOT NULL, "basis" text NOT NULL, "source" text NOT NULL, "K" text NOT NULL, "S" text NOT NULL, "createdAt" text NOT NULL, "baseId" text, "beliefId" text, "learnt" text, CONSTRAINT "fk_tube_state_tube" FOREIGN KEY ("tubeId") REFERENCES "tube" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "fk_tube_state_base" FOREIGN KEY ("baseId") REFERENCES "tube_state" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "fk_tube_state_belief" FOREIGN KEY ("beliefId") REFERENCES "belief" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION`,
    carried: ['id', 'tubeId', 'basis', 'source', 'K', 'S', 'createdAt'],
    indices: [
      `CREATE INDEX "ix_tube_state_tube" ON "tube_state" ("tubeId")`,
      `CREATE INDEX "ix_tube_state_base" ON "tube_state" ("baseId")`,
      `CREATE INDEX "ix_tube_state_belief" ON "tube_state" ("beliefId")`,
    ],
  },
  {
    table: 'reference',
    columns: `"id" text PRIMARY KEY NOT NULL, "paintingId" text NOT NULL, "pictureId" text NOT NULL, "name" text NOT NULL, "createdAt" text NOT NULL, "deletedAt" text, "version" integer NOT NULL, CONSTRAINT "fk_reference_picture" FOREIGN KEY ("pictureId") REFERENCES "picture" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "fk_reference_painting" FOREIGN KEY ("paintingId") REFERENCES "painting" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION`,
    carried: ['id', 'paintingId', 'pictureId', 'name', 'createdAt', 'deletedAt'],
    added: { version: '1' },
    indices: [
      `CREATE INDEX "ix_reference_picture" ON "reference" ("pictureId")`,
      `CREATE INDEX "ix_reference_painting" ON "reference" ("paintingId")`,
    ],
  },
];

const PILE = `"id" text PRIMARY KEY NOT NULL, "version" integer NOT NULL, "paintingId" text, "name" text NOT NULL, "createdAt" text NOT NULL, "updatedAt" text NOT NULL, "deletedAt" text, "remakeOfId" text, "target" text, "sampleId" text, "plan" text NOT NULL, "ml" real NOT NULL, "predicted" text NOT NULL, CONSTRAINT "fk_pile_painting" FOREIGN KEY ("paintingId") REFERENCES "painting" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "fk_pile_remake_of" FOREIGN KEY ("remakeOfId") REFERENCES "pile" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "fk_pile_sample" FOREIGN KEY ("sampleId") REFERENCES "sample" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION`;

const NEW_TABLES = [
  `CREATE TABLE "change" ("seq" integer PRIMARY KEY NOT NULL, "id" text NOT NULL, "device" text NOT NULL, "at" text NOT NULL, "undoes" integer, "ops" text NOT NULL, "inverse" text NOT NULL, "touched" text NOT NULL)`,
  `CREATE UNIQUE INDEX "ux_change_id" ON "change" ("id")`,
  `CREATE INDEX "ix_change_undoes" ON "change" ("undoes")`,
  `CREATE TABLE "sample" ("id" text PRIMARY KEY NOT NULL, "version" integer NOT NULL, "paintingId" text NOT NULL, "referenceId" text, "outline" text, "seen" text NOT NULL, "paint" text NOT NULL, "zone" text NOT NULL, "thing" text NOT NULL, "createdAt" text NOT NULL, "deletedAt" text, CONSTRAINT "fk_sample_painting" FOREIGN KEY ("paintingId") REFERENCES "painting" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "fk_sample_reference" FOREIGN KEY ("referenceId") REFERENCES "reference" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION)`,
  `CREATE INDEX "ix_sample_painting" ON "sample" ("paintingId")`,
  `CREATE INDEX "ix_sample_reference" ON "sample" ("referenceId")`,
  `CREATE TABLE "stage" ("id" text PRIMARY KEY NOT NULL, "n" integer NOT NULL, "pileId" text NOT NULL, "kind" text NOT NULL, "left" real, "at" text NOT NULL, "predicted" text, "withdrawnAt" text, CONSTRAINT "fk_stage_pile" FOREIGN KEY ("pileId") REFERENCES "pile" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION)`,
  `CREATE UNIQUE INDEX "ux_stage_n" ON "stage" ("n")`,
  `CREATE INDEX "ix_stage_pile" ON "stage" ("pileId")`,
  `CREATE TABLE "addition" ("id" text PRIMARY KEY NOT NULL, "stageId" text NOT NULL, "position" integer NOT NULL, "tubeId" text, "stateId" text, "sourceId" text, "ml" real NOT NULL, "low" real NOT NULL, "high" real NOT NULL, "said" text, CONSTRAINT "fk_addition_stage" FOREIGN KEY ("stageId") REFERENCES "stage" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "fk_addition_tube" FOREIGN KEY ("tubeId") REFERENCES "tube" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "fk_addition_state" FOREIGN KEY ("stateId") REFERENCES "tube_state" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "fk_addition_source" FOREIGN KEY ("sourceId") REFERENCES "stage" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION)`,
  `CREATE INDEX "ix_addition_stage" ON "addition" ("stageId")`,
  `CREATE INDEX "ix_addition_tube" ON "addition" ("tubeId")`,
  `CREATE INDEX "ix_addition_state" ON "addition" ("stateId")`,
  `CREATE INDEX "ix_addition_source" ON "addition" ("sourceId")`,
  `CREATE TABLE "sighting" ("id" text PRIMARY KEY NOT NULL, "kind" text NOT NULL, "light" text, "white" text, "at" text NOT NULL)`,
  `CREATE TABLE "look" ("id" text PRIMARY KEY NOT NULL, "sightingId" text NOT NULL, "stageId" text NOT NULL, "L" real NOT NULL, "a" real NOT NULL, "b" real NOT NULL, "said" text, "at" text NOT NULL, "withdrawnAt" text, CONSTRAINT "fk_look_sighting" FOREIGN KEY ("sightingId") REFERENCES "sighting" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "fk_look_stage" FOREIGN KEY ("stageId") REFERENCES "stage" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION)`,
  `CREATE INDEX "ix_look_sighting" ON "look" ("sightingId")`,
  `CREATE INDEX "ix_look_stage" ON "look" ("stageId")`,
  `CREATE TABLE "belief" ("id" text PRIMARY KEY NOT NULL, "lookId" text NOT NULL, "evidence" text NOT NULL, "at" text NOT NULL, "refusedAt" text, CONSTRAINT "fk_belief_look" FOREIGN KEY ("lookId") REFERENCES "look" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION)`,
  `CREATE UNIQUE INDEX "ux_belief_look" ON "belief" ("lookId")`,
];

async function rebuild(runner: QueryRunner, { table, columns, carried, added = {}, indices }: Rebuilt): Promise<void> {
  const names = [...carried, ...Object.keys(added)].map((name) => `"${name}"`).join(', ');
  const values = [...carried.map((name) => `"${name}"`), ...Object.values(added)].join(', ');
  await runner.query(`CREATE TABLE "new_${table}" (${columns})`);
  await runner.query(`INSERT INTO "new_${table}" (${names}) SELECT ${values} FROM "${table}"`);
  await runner.query(`DROP TABLE "${table}"`);
  await runner.query(`ALTER TABLE "new_${table}" RENAME TO "${table}"`);
  for (const index of indices) await runner.query(index);
}

interface OldPile {
  readonly id: string;
  readonly version: number;
  readonly paintingId: string;
  readonly name: string;
  readonly amountMl: number;
  readonly targetL: number | null;
  readonly targetA: number | null;
  readonly targetB: number | null;
  readonly sampledReferenceId: string | null;
  readonly sampledX: number | null;
  readonly sampledY: number | null;
  readonly sampledRadius: number | null;
  readonly predictedL: number;
  readonly predictedA: number;
  readonly predictedB: number;
  readonly steadiness: number;
  readonly basis: string;
  readonly createdAt: string;
  readonly updatedAt: string;
  readonly deletedAt: string | null;
}

interface OldMeasure {
  readonly id: string;
  readonly pileId: string;
  readonly parts: number;
  readonly tubeId: string | null;
  readonly stateId: string | null;
  readonly letdownId: string | null;
}

/** A let-down was a row without a tube, with its tubes pointing back at it; now it is a heap before the pile. */
function planOf(measures: readonly OldMeasure[]): object {
  const ingredient = ({ tubeId, stateId, parts }: OldMeasure) => ({ tube: tubeId, state: stateId, parts });
  const heaps: object[] = [];
  const ingredients = measures
    .filter((m) => m.letdownId === null)
    .map((m) => {
      if (m.tubeId !== null) return ingredient(m);
      heaps.push({ ingredients: measures.filter((inside) => inside.letdownId === m.id).map(ingredient) });
      return { heap: heaps.length - 1, parts: m.parts };
    });
  return { form: 1, heaps: [...heaps, { ingredients }] };
}

/** Where a pile was sampled becomes a sample of its own. */
async function carrySample(runner: QueryRunner, pile: OldPile): Promise<string | null> {
  if (pile.sampledReferenceId === null || pile.targetL === null) return null;
  const id = randomUUID();
  const seen = JSON.stringify({ L: pile.targetL, a: pile.targetA, b: pile.targetB });
  const outline = JSON.stringify({ x: pile.sampledX, y: pile.sampledY, radius: pile.sampledRadius });
  await runner.query(
    `INSERT INTO "sample" ("id", "version", "paintingId", "referenceId", "outline", "seen", "paint", "zone", "thing", "createdAt", "deletedAt") VALUES (?, 1, ?, ?, ?, ?, ?, '', '', ?, NULL)`,
    [id, pile.paintingId, pile.sampledReferenceId, outline, seen, seen, pile.createdAt],
  );
  return id;
}

/** Every pile with its recipe as its plan; what was done with it nobody recorded. */
async function carryPiles(runner: QueryRunner): Promise<void> {
  const piles = (await runner.query(`SELECT * FROM "pile" ORDER BY "createdAt"`)) as OldPile[];
  const measures = (await runner.query(`SELECT * FROM "pile_measure" ORDER BY "pileId", "position"`)) as OldMeasure[];
  const byPile = grouped(measures);
  await runner.query(`CREATE TABLE "new_pile" (${PILE})`);
  for (const pile of piles) {
    const target =
      pile.targetL === null ? null : JSON.stringify({ kind: 'absolute', lab: { L: pile.targetL, a: pile.targetA, b: pile.targetB } });
    const predicted = {
      lab: { L: pile.predictedL, a: pile.predictedA, b: pile.predictedB },
      steadiness: pile.steadiness,
      basis: pile.basis,
    };
    await runner.query(
      `INSERT INTO "new_pile" ("id", "version", "paintingId", "name", "createdAt", "updatedAt", "deletedAt", "remakeOfId", "target", "sampleId", "plan", "ml", "predicted") VALUES (?, ?, ?, ?, ?, ?, ?, NULL, ?, ?, ?, ?, ?)`,
      [
        pile.id,
        pile.version,
        pile.paintingId,
        pile.name,
        pile.createdAt,
        pile.updatedAt,
        pile.deletedAt,
        target,
        await carrySample(runner, pile),
        JSON.stringify(planOf(byPile.get(pile.id) ?? [])),
        pile.amountMl,
        JSON.stringify(predicted),
      ],
    );
  }
  await runner.query(`DROP TABLE "pile_measure"`);
  await runner.query(`DROP TABLE "pile"`);
  await runner.query(`ALTER TABLE "new_pile" RENAME TO "pile"`);
  for (const column of ['painting', 'sample']) await runner.query(`CREATE INDEX "ix_pile_${column}" ON "pile" ("${column}Id")`);
  await runner.query(`CREATE INDEX "ix_pile_remake_of" ON "pile" ("remakeOfId")`);
}

function grouped(measures: readonly OldMeasure[]): Map<string, OldMeasure[]> {
  const groups = new Map<string, OldMeasure[]>();
  for (const measure of measures) groups.set(measure.pileId, [...(groups.get(measure.pileId) ?? []), measure]);
  return groups;
}

/** Piles become plans and stages; changes are logged; samples, looks and beliefs have rows of their own. */
export class PilesThatRemember1764000000000 implements MigrationInterface {
  name = 'PilesThatRemember1764000000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of NEW_TABLES) await runner.query(statement);
    for (const table of REBUILT) await rebuild(runner, table);
    await carryPiles(runner);
    await runner.query(
      `UPDATE "tube" SET "stateId" = (SELECT "id" FROM "tube_state" WHERE "tubeId" = "tube"."id" ORDER BY "createdAt" DESC, "rowid" DESC LIMIT 1)`,
    );
    for (const trigger of TRIGGERS) await runner.query(trigger);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('There is no way back from piles that remember: use the copy that was laid beside.'));
  }
}

/** What is never changed once it is recorded, but for the columns named after it. */
const FIXED: Readonly<Record<string, readonly string[]>> = {
  change: ['seq', 'id', 'device', 'at', 'undoes', 'ops', 'inverse', 'touched'],
  tube_state: ['id', 'tubeId', 'basis', 'source', 'K', 'S', 'createdAt', 'baseId', 'beliefId', 'learnt'],
  stage: ['id', 'n', 'pileId', 'kind', 'left', 'at', 'predicted'],
  addition: ['id', 'stageId', 'position', 'tubeId', 'stateId', 'sourceId', 'ml', 'low', 'high', 'said'],
  sighting: ['id', 'kind', 'light', 'white', 'at'],
  look: ['id', 'sightingId', 'stageId', 'L', 'a', 'b', 'said', 'at'],
  belief: ['id', 'lookId', 'evidence', 'at'],
};

/** Rows that carry a version, which goes up by one with every change. */
const VERSIONED = ['palette', 'painting', 'reference', 'sample', 'pile', 'settings'];

const columns = (names: readonly string[]): string => names.map((name) => `"${name}"`).join(', ');
const refuse = (says: string): string => `SELECT RAISE(ABORT, '${says}')`;
const trigger = (name: string, when: string, says: string, condition?: string): string =>
  `CREATE TRIGGER "${name}" ${when} FOR EACH ROW ${condition ? `WHEN ${condition} ` : ''}BEGIN ${refuse(says)}; END`;

const fixed = Object.entries(FIXED).flatMap(([table, names]) => [
  trigger(`tr_${table}_fixed`, `BEFORE UPDATE OF ${columns(names)} ON "${table}"`, `a ${table} is never changed`),
  trigger(`tr_${table}_kept`, `BEFORE DELETE ON "${table}"`, `a ${table} is never deleted`),
]);

const versions = VERSIONED.map((table) =>
  trigger(
    `tr_${table}_version`,
    `BEFORE UPDATE ON "${table}"`,
    `the version of a ${table} goes up by one`,
    `NEW."version" <> OLD."version" + 1`,
  ),
);

const living = `SELECT 1 FROM "addition" JOIN "stage" ON "stage"."id" = "addition"."stageId" WHERE "stage"."withdrawnAt" IS NULL AND`;

const holds = [
  trigger(
    'tr_addition_source',
    'BEFORE INSERT ON "addition"',
    'an addition has one source',
    `(NEW."tubeId" IS NULL) = (NEW."sourceId" IS NULL) OR (NEW."tubeId" IS NULL) <> (NEW."stateId" IS NULL)`,
  ),
  trigger(
    'tr_addition_amount',
    'BEFORE INSERT ON "addition"',
    'an addition lies within its range',
    `NOT (NEW."low" > 0 AND NEW."low" <= NEW."ml" AND NEW."ml" <= NEW."high")`,
  ),
  trigger(
    'tr_addition_state',
    'BEFORE INSERT ON "addition"',
    'a state is one of its tube',
    `NEW."stateId" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "tube_state" WHERE "id" = NEW."stateId" AND "tubeId" = NEW."tubeId")`,
  ),
  trigger(
    'tr_addition_order',
    'BEFORE INSERT ON "addition"',
    'a stage takes from living stages before it',
    `NEW."sourceId" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "stage" "source" JOIN "stage" "own" ON "own"."id" = NEW."stageId" WHERE "source"."id" = NEW."sourceId" AND "source"."withdrawnAt" IS NULL AND "source"."n" < "own"."n")`,
  ),
  trigger(
    'tr_stage_used',
    'BEFORE UPDATE OF "withdrawnAt" ON "stage"',
    'a stage that is used is not withdrawn',
    `NEW."withdrawnAt" IS NOT NULL AND EXISTS (${living} "addition"."sourceId" = NEW."id")`,
  ),
  trigger(
    'tr_stage_sources',
    'BEFORE UPDATE OF "withdrawnAt" ON "stage"',
    'a stage is brought back with what it takes from',
    `NEW."withdrawnAt" IS NULL AND EXISTS (SELECT 1 FROM "addition" JOIN "stage" "source" ON "source"."id" = "addition"."sourceId" WHERE "addition"."stageId" = NEW."id" AND "source"."withdrawnAt" IS NOT NULL)`,
  ),
  trigger(
    'tr_tube_state_learnt',
    'BEFORE INSERT ON "tube_state"',
    'a learnt state has a base and a belief, others have none',
    `(NEW."basis" = 'learnt') <> (NEW."baseId" IS NOT NULL) OR (NEW."basis" = 'learnt') <> (NEW."beliefId" IS NOT NULL) OR (NEW."basis" = 'learnt') <> (NEW."learnt" IS NOT NULL)`,
  ),
  trigger(
    'tr_tube_state_base',
    'BEFORE INSERT ON "tube_state"',
    'a learnt state is learnt over one of its tube that is not',
    `NEW."baseId" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "tube_state" WHERE "id" = NEW."baseId" AND "tubeId" = NEW."tubeId" AND "basis" <> 'learnt')`,
  ),
];

/** Everything that holds always, said by the file itself. A table that is rebuilt loses its own: make them again. */
export const TRIGGERS: readonly string[] = [...fixed, ...versions, ...holds];

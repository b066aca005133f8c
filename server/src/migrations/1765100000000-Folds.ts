import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What was folded of evidence lies in the file, pile by pile; which curves a tube's evidence is laid over is found at once. */
export class Folds1765100000000 implements MigrationInterface {
  name = 'Folds1765100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "fold" ("pileId" text NOT NULL, "since" text NOT NULL, "firstId" text NOT NULL, "beliefs" text NOT NULL, "piles" integer, "isStale" boolean NOT NULL DEFAULT (0), "share" blob, "snapshot" blob, CONSTRAINT "fk_fold_pile" FOREIGN KEY ("pileId") REFERENCES "pile" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "pk_fold" PRIMARY KEY ("pileId"))`,
    );
    await runner.query(`CREATE INDEX "ix_fold_order" ON "fold" ("since", "firstId")`);
    await runner.query(`CREATE INDEX "ix_fold_snapshot" ON "fold" ("since", "firstId") WHERE "snapshot" IS NOT NULL`);
    await runner.query(`CREATE INDEX "ix_tube_state_beneath" ON "tube_state" ("tubeId") WHERE "basis" <> 'learnt'`);
    // Every pile with evidence that counts, by its first belief.
    await runner.query(
      `INSERT INTO "fold" ("pileId", "since", "firstId", "beliefs")
       SELECT "pileId", MIN("at"), "id", GROUP_CONCAT("id") FROM (
         SELECT "stage"."pileId" AS "pileId", "belief"."at" AS "at", "belief"."id" AS "id" FROM "belief"
         JOIN "look" ON "look"."id" = "belief"."lookId" JOIN "stage" ON "stage"."id" = "look"."stageId"
         WHERE "belief"."refusedAt" IS NULL AND "look"."withdrawnAt" IS NULL AND "stage"."withdrawnAt" IS NULL
         ORDER BY "stage"."pileId", "belief"."at", "belief"."id"
       ) GROUP BY "pileId"`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP INDEX "ix_tube_state_beneath"`);
    await runner.query(`DROP TABLE "fold"`);
  }
}

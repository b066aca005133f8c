import { expect } from 'chai';
import { KINDS, kindOf, OPERATIONS, ROW_KINDS } from '@dusk/wire';
import { SUBJECTS } from '../src/studio/subjects.ts';
import { openBench, type Bench } from './studio.ts';

describe('the table of kinds', () => {
  let bench: Bench;
  before(async () => {
    bench = await openBench();
  });
  after(() => bench.close());

  for (const kind of ROW_KINDS) {
    const { op, versioned, putAway } = KINDS[kind];
    it(`says of ${kind} what their table and operations say`, async () => {
      const { columns, tableName } = bench.running.studio.data.getMetadata(SUBJECTS[kind].table);
      const names = columns.map(({ propertyName }) => propertyName);
      expect(names.includes('version'), 'carries a version').to.equal(versioned);
      expect(names.includes('deletedAt'), 'can be put away').to.equal(putAway);
      const triggers = (await bench.running.studio.data.query(
        `SELECT "name" FROM "sqlite_master" WHERE "type" = 'trigger' AND "tbl_name" = ?`,
        [tableName],
      )) as { name: string }[];
      expect(
        triggers.some(({ name }) => name.endsWith('_version')),
        'the file sees to the version',
      ).to.equal(versioned);
      expect(`${op}.delete` in OPERATIONS, 'delete').to.equal(putAway);
      if (putAway) expect(OPERATIONS).to.include.keys(`${op}.restore`);
    });
  }

  it('knows of every operation which kind it writes, but for what is done with piles and seen of them', () => {
    const others = Object.keys(OPERATIONS).filter((name) => kindOf(name) === undefined);
    expect(new Set(others.map((name) => name.split('.')[0]))).to.deep.equal(new Set(['stage', 'deed', 'look', 'belief']));
    expect(kindOf('pile.change')).to.equal('piles');
    expect(kindOf('piles.change')).to.equal(undefined);
  });
});

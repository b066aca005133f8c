import { expect } from 'chai';
import fc from 'fast-check';
import {
  closeness,
  CATALOGUE,
  hexToLab,
  labOf,
  reflectance,
  valueToY,
  valueOfLightness,
  type FromTube,
  type Leaf,
  type Mixture,
  mlText,
  partsText,
} from '@dusk/core';
import { SURROUNDS, type PileDto, type StageDto } from '@dusk/wire';
import { describe as inWords, firstName, moment, valueDifference } from '../src/floor/words.ts';
import { surroundStyle } from '../src/chips/surround.ts';
import { ingredientsOf, saysSize, type LoggedLine } from '../src/recipe/logged.ts';
import { inShort } from '@dusk/core';
import { stepsOf } from '../src/recipe/steps.ts';
import { chaptersOf, historyOf } from '../src/pile/story.ts';
import { seeded } from '@dusk/core/random';
import { beadScale } from '../src/chips/beads.ts';
import { layDabs, meantBy, sizeOf, type Dab } from '../src/frame/ledge/lay.ts';
import { applied, emptyRows, present } from '../src/studio/rows.ts';
import { learntOf } from '../src/tubes/learnt.ts';
import { matches } from '../src/tubes/search.ts';
import type { Tube } from '../src/stores/tubes.ts';

const tube = (pigment: string, nozzleMm = 6): Tube => {
  const { K, S, name, caution, colourIndex, character, drying, lightfastness, density } = CATALOGUE.get(pigment)!;
  const paint = { K, S };
  const masstone = labOf(reflectance(paint));
  const more = { maker: '', pigment, colourIndex, character, drying, lightfastness, density, stateId: 's', basis: 'typical' as const };
  const curves = { paint, base: paint, baseBasis: 'typical' as const, learnt: null };
  const ofOwn = { version: 1, pigments: [pigment], own: [], sizeMl: null, leftMl: null, note: '', createdAt: '', deletedAt: null };
  return { id: pigment, name, caution, nozzleMm, masstone, tint: masstone, ...curves, ...more, ...ofOwn };
};
const TUBES = new Map(['titanium-white', 'yellow-ochre', 'phthalo-blue'].map((p) => [p, tube(p)]));

describe('dabs on the ledge', () => {
  const WIDTH = 1280;
  const STEP_PX = 0.094 * WIDTH;
  const dabs = (most: number) =>
    fc
      .array(
        fc.record({
          value: fc.oneof(fc.double({ min: 0, max: 10, noNaN: true }), fc.constantFrom(2, 2, 5, 5.02)),
          warmth: fc.oneof(fc.double({ min: -1, max: 1, noNaN: true }), fc.constantFrom(0, 0.1)),
          ml: fc.double({ min: 0.2, max: 60, noNaN: true }),
        }),
        { minLength: 1, maxLength: most },
      )
      .map((list) =>
        list.map(({ value, warmth, ml }, i): Dab => {
          const x = (0.03 + 0.094 * value) * WIDTH;
          return { id: `pile ${i}`, x, warmth, size: sizeOf(ml, list.length) };
        }),
      );

  it('stand where their value is, each on its own side of the line, however many there are', () => {
    fc.assert(
      fc.property(dabs(90), (list) => {
        const { laid, half } = layDabs(list, 100);
        expect(laid).to.have.length(list.length);
        expect(half).to.be.at.most(100);
        for (const one of laid) {
          const { x, warmth } = list.find(({ id }) => id === one.id)!;
          expect(Math.abs(one.x - x)).to.be.at.most(STEP_PX / 20);
          expect(one.up * (warmth < 0 ? -1 : 1)).to.be.within(0, half);
        }
      }),
    );
  });

  it('are as high as they are warm where nothing is in the way', () => {
    const [low, high] = layDabs(
      [
        { id: 'a', x: 200, warmth: 0.4, size: 30 },
        { id: 'b', x: 600, warmth: 0.6, size: 30 },
      ],
      100,
    ).laid;
    expect(high!.up / low!.up).to.be.closeTo(1.5, 0.01);
  });

  it('can each be pressed: a press on a middle means that pile, or fans out those that share its place', () => {
    fc.assert(
      fc.property(dabs(90), fc.constantFrom('mouse' as const, 'touch' as const), (list, by) => {
        const { laid } = layDabs(list, 100);
        for (const one of laid) expect(meantBy(laid, one.x, one.up, by)).to.include(one.id);
      }),
    );
  });

  it('leave the middle of each free while there is room: with sixty as painters have them nearly always one press does', () => {
    const random = seeded(7);
    const list = Array.from({ length: 60 }, (_, i): Dab => {
      const value = Math.min(9.6, Math.max(1, 4.5 + 2 * (random() + random() + random() - 1.5) * 1.6));
      return { id: `pile ${i}`, x: (0.03 + 0.094 * value) * WIDTH, warmth: 2 * random() - 1, size: sizeOf(1 + 12 * random(), 60) };
    });
    const { laid } = layDabs(list, 100);
    const alone = laid.filter((one) => meantBy(laid, one.x, one.up, 'mouse').length === 1);
    expect(alone.length).to.be.at.least(58);
  });

  it('stay where they are under a hand, whatever comes beside them', () => {
    fc.assert(
      fc.property(dabs(40), dabs(8), (list, more) => {
        const before = layDabs(list, 80);
        const fixed = new Map(before.laid.map(({ id, up }) => [id, up]));
        const after = layDabs([...list, ...more.map((dab) => ({ ...dab, id: `more ${dab.id}` }))], before.half, fixed);
        for (const one of before.laid) expect(after.laid.find(({ id }) => id === one.id)!.up).to.equal(one.up);
      }),
    );
  });

  it('are empty places for no piles, and for a press beside all', () => {
    expect(layDabs([], 100).laid).to.deep.equal([]);
    expect(meantBy(layDabs([{ id: 'a', x: 100, warmth: 0, size: 30 }], 100).laid, 400, 0, 'touch')).to.deep.equal([]);
  });
});

describe('beads', () => {
  it('are drawn true where they have room, else all of a recipe so many times smaller', () => {
    expect(beadScale(300, 300)).to.equal(1);
    expect(beadScale(301, 300)).to.equal(2);
    fc.assert(
      fc.property(fc.double({ min: 1, max: 200_000, noNaN: true }), fc.double({ min: 200, max: 2000, noNaN: true }), (longest, room) => {
        expect(longest / beadScale(longest, room)).to.be.at.most(room + 1e-9);
      }),
    );
  });
});

describe('the surround of judged colours', () => {
  const Y = (hex: string) => valueToY(valueOfLightness(hexToLab(hex)[0])) / 100;
  const contrast = (a: string, b: string) => (Math.max(Y(a), Y(b)) + 0.05) / (Math.min(Y(a), Y(b)) + 0.05);

  it('is strictly neutral, but for the ground, and carries ink that reads', () => {
    for (const choice of SURROUNDS)
      for (const ground of ['#b9a58c', '#8f7f6a', '#20150f', '#f4efe6', '#787878']) {
        const style = surroundStyle(choice, ground);
        if (choice !== 'ground') expect(new Set(style['--surround'].match(/[0-9a-f]{2}/g)).size, choice).to.equal(1);
        expect(contrast(style['--surround-ink'], style['--on-ink'])).to.be.above(15);
        for (const ink of ['--surround-ink', '--surround-soft'] as const)
          expect(contrast(style['--surround'], style[ink]), `${choice} ${ground} ${ink}`).to.be.above(4.5);
      }
  });
});

const KNOWN = { tubes: TUBES, piles: new Map<string, PileDto>(), paintOf: (source: Leaf) => TUBES.get((source as FromTube).tube)!.paint };

describe('a recipe in steps', () => {
  it('adds up to the amount, in mixing order, with a chip after each', () => {
    const mixture: Mixture = {
      heaps: [
        {
          ingredients: [
            { tube: 'yellow-ochre', parts: 1 },
            { tube: 'titanium-white', parts: 5 },
          ],
        },
      ],
    };
    const [pile] = stepsOf(mixture, 6, KNOWN);
    expect(pile!.steps.map((s) => s.name)).to.deep.equal(['Titanium white', 'Yellow ochre']);
    expect(pile!.steps.reduce((sum, s) => sum + (s.beadMm * Math.PI * 9) / 1000, 0)).to.be.closeTo(6, 1e-9);
    expect(pile!.steps[0]!.after[0]).to.be.above(pile!.steps[1]!.after[0]);
    expect(inShort([pile!], 'parts')).to.equal('5 Titanium white · 1 Yellow ochre');
  });

  it('mixes a let-down first, in a batch that can be squeezed, and names it in the pile', () => {
    const letdown = {
      ingredients: [
        { tube: 'titanium-white', parts: 39 },
        { tube: 'phthalo-blue', parts: 1 },
      ],
    };
    const mixture: Mixture = {
      heaps: [
        letdown,
        {
          ingredients: [
            { tube: 'titanium-white', parts: 11 },
            { heap: 0, parts: 1 },
          ],
        },
      ],
    };
    const [first, pile] = stepsOf(mixture, 4, KNOWN);
    expect(first!.name).to.match(/^weakened phthalo blue/);
    expect(first!.steps.at(-1)!.beadMm).to.be.closeTo(5, 1e-9);
    expect(first!.batch).to.be.above(1);
    expect(pile!.steps.at(-1)!.name).to.equal(first!.name);
    expect(stepsOf(mixture, 4000, KNOWN)[0]!.batch).to.equal(1);
  });
});

describe('a pile logged as it was', () => {
  const handlingOf = () => ({ density: 2, nozzleMm: 6 });
  const line = (amount: string, unit: LoggedLine['unit']): LoggedLine => ({ source: { tube: 'a' }, amount, unit });

  it('is measured in parts, beads, grams or words, those that are not exact with a range', () => {
    expect(ingredientsOf([line('3', 'parts')], handlingOf)).to.deep.equal([{ tube: 'a', parts: 3 }]);
    const [grams] = ingredientsOf([line('4,5', 'g')], handlingOf);
    expect(grams!.parts).to.be.closeTo(2.25, 1e-9);
    expect(grams!.range![0]).to.be.below(2.25);
    const [bead] = ingredientsOf([line('10', 'mm')], handlingOf);
    expect(bead!.parts).to.be.closeTo((10 * Math.PI * 9) / 1000, 1e-9);
    const [said] = ingredientsOf([line('a touch', 'words')], handlingOf);
    expect(said).to.include({ said: 'a touch' });
    expect(said!.range).to.have.length(2);
    expect([saysSize([line('1', 'g')]), saysSize([line('1', 'parts')])]).to.deep.equal([true, false]);
  });

  it('is refused in a sentence when an amount is none', () => {
    for (const bad of [line('', 'parts'), line('-1', 'g'), line('much too much', 'mm'), line('heaps', 'words')])
      expect(() => ingredientsOf([bad], handlingOf)).to.throw(/amount/);
    expect(() => ingredientsOf([], handlingOf)).to.throw(/what went into/);
  });
});

describe('the story of a pile', () => {
  const lab = (L: number) => ({ L, a: 3, b: 12 });
  const look = {
    id: 'l',
    sightingId: 's',
    kind: 'eye' as const,
    confirmed: false,
    lab: lab(40),
    said: 'darker',
    at: '2026-03-01T14:05:00Z',
    beliefId: 'b',
    refused: true,
  };
  const addition = { id: 'a', tubeId: 'yellow-ochre', stateId: 's', stageId: null, ml: 0.4, low: 0.2, high: 0.8, said: null };
  const stage = (kind: StageDto['kind'], n: number, more: Partial<StageDto> = {}): StageDto => ({
    id: `stage ${n}`,
    n,
    kind,
    at: '2026-03-01T14:00:00Z',
    left: null,
    predicted: lab(50),
    additions: [],
    looks: [],
    ...more,
  });
  const pile = {
    createdAt: '2026-03-01T13:00:00Z',
    target: { kind: 'absolute', lab: lab(52) },
    predicted: { lab: lab(51), steadiness: 1, basis: 'typical' },
    stages: [
      stage('mixed', 1, { additions: [{ ...addition, said: 'mostly' }], looks: [look] }),
      stage('added', 2, { additions: [addition, { ...addition, tubeId: null, stageId: 'other' }] }),
      stage('left', 3, { left: 1.5 }),
      stage('changed', 4, { predicted: null }),
      stage('scraped', 5),
    ],
  } as unknown as PileDto;

  it('is one strip: wanted, mixed, got, added', () => {
    expect(chaptersOf(pile).map((c) => c.what)).to.deep.equal(['wanted', 'mixed', 'got', 'added', 'changed', 'scraped']);
    expect(chaptersOf(pile).map((c) => c.lab[0])).to.deep.equal([52, 50, 40, 50, 50, 50]);
  });

  it('is read as a sentence a line', () => {
    const names = { tubes: TUBES, pileOfStage: () => 'wall', valueText: (v: number) => v.toFixed(1) };
    const lines = historyOf(pile, names).map((l) => l.text);
    expect(lines[0]).to.equal('meant to be value 5.1');
    expect(lines[1]).to.equal('mixed from mostly yellow ochre');
    expect(lines[2]).to.match(/^looked value 3\.9 by eye, 1\.2 darker than wanted \(“darker”\); not learnt from$/);
    expect(lines[3]).to.equal('added about 0.40 ml yellow ochre, about 0.40 ml “wall”');
    expect(lines.slice(4)).to.deep.equal(['1.5 ml of it taken, the rest set aside', 'changed by eye', 'wiped off']);
  });
});

describe('rows as they are heard of', () => {
  const row = (name: string, deletedAt: string | null = null) => ({
    id: 'p',
    version: 1,
    name,
    tubeIds: [],
    lightsWhiteId: null,
    mixedDarks: false,
    guestIds: [],
    createdAt: 'a',
    updatedAt: 'a',
    deletedAt,
  });

  it('are taken in at one entrance, and what was heard later in the log stands', () => {
    const rows = emptyRows();
    const heard = new Map<string, number>();
    applied(rows, heard, { seq: 5, rows: { palettes: [row('new')] } });
    applied(rows, heard, { seq: 4, rows: { palettes: [row('old')] } });
    expect(rows.palettes.get('p')!.name).to.equal('new');
    applied(rows, heard, { seq: 6, rows: { palettes: [row('gone', 'b')] } });
    expect(present(rows.palettes)).to.deep.equal([]);
    applied(rows, heard, { seq: 7, rows: { palettes: [row('back')] } });
    expect(present(rows.palettes).map((p) => p.name)).to.deep.equal(['back']);
  });
});

describe('words', () => {
  it('say value first, then what else is off', () => {
    expect(valueDifference(0.02)).to.equal('same value');
    expect(valueDifference(0.31)).to.equal('0.3 lighter');
    expect(valueDifference(-1.2)).to.equal('1.2 darker');
    expect([0.4, 1.5, 3, 9].map(closeness)).to.deep.equal(['a match', 'close', 'near', 'not with these tubes']);
    expect(inWords([50, 0, 0], 0)).to.equal('neutral, grey');
    expect(firstName([60, 15, 25])).to.match(/^(fawn|tan|terracotta|salmon)$/);
    const name = firstName([60, 15, 25]);
    const taken = new Set([name]);
    for (let n = 0; n < 14; n++) taken.add(firstName([60, 15, 25], taken));
    expect(taken, 'none twice').to.have.property('size', 15);
  });

  it('write parts as a knife thinks of them', () => {
    expect([1, 1.5, 0.17, 0.66, 2.98, 0.05, 0.004, 3.26].map(partsText)).to.deep.equal(['1', '1½', '⅙', '⅔', '3', '0.05', '0.004', '3¼']);
    expect([0.0123, 0.42, 4].map(mlText)).to.deep.equal(['0.012 ml', '0.42 ml', '4.0 ml']);
    const now = new Date('2026-03-02T10:00:00');
    expect(moment('2026-03-02T09:05:00', now)).to.equal('09:05');
    expect(moment('2026-03-01T09:05:00', now)).to.equal('1 March, 09:05');
  });

  it('say what was learnt with its figure', () => {
    const learnt = (strength: number, piles: number) => learntOf({ ...tube('viridian'), learnt: { strength, piles } as Tube['learnt'] });
    expect(learnt(1.204, 3)).to.equal('Your viridian seems about 1.2 times as strong as typical, from 3 piles.');
    expect(learnt(0.85, 1)).to.equal('Your viridian seems about 0.85 times as strong as typical, from 1 pile.');
    expect(learnt(1.01, 2)).to.match(/as strong as typical/);
    expect(learntOf(tube('viridian'))).to.equal('');
  });

  it('find a tube by name, pigment or character', () => {
    const blue = tube('phthalo-blue');
    for (const wanted of ['', null, 'phthalo', 'PB15', 'enormous blue']) expect(matches(blue, wanted)).to.equal(true);
    expect(matches(blue, 'phthalo opaque')).to.equal(false);
  });
});

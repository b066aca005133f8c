import { expect } from 'chai';
import fc from 'fast-check';
import {
  AIDS,
  familySaid,
  furtherOff,
  isInsideOut,
  labToMunsell,
  moved,
  relativeOf,
  shiftBetween,
  valueOfLightness,
  type Lab,
} from '../src/index.ts';
import { runs } from './runs.ts';

const SKINS: readonly Lab[] = [
  [80, 10, 16],
  [66, 14, 20],
  [48, 15, 20],
  [33, 11, 13],
];
const things = fc.tuple(
  fc.double({ min: 45, max: 88, noNaN: true }),
  fc.double({ min: -30, max: 40, noNaN: true }),
  fc.double({ min: -30, max: 60, noNaN: true }),
);
const of = (id: string) => AIDS.find((aid) => aid.id === id)!;
const valueOf = (lab: Lab): number => valueOfLightness(lab[0]);

describe('families by knowledge', () => {
  it('say what they rest on, and differ from their base and among each other', () => {
    for (const { rests, relatives } of AIDS) {
      expect(rests.length).to.be.above(80);
      const labs = relatives.map((one) =>
        relativeOf([62, 12, 18], one)
          .map((v) => v.toFixed(1))
          .join(),
      );
      expect(new Set([...labs, '62.0,12.0,18.0']).size).to.equal(relatives.length + 1);
    }
  });

  it('of light and shadow do not meet in value, of whatever thing in the light', () => {
    for (const id of ['in light', 'strong yellow'])
      fc.assert(
        fc.property(things, (base) => {
          const relatives = of(id).relatives.map((relative) => ({ relative, lab: relativeOf(base, relative) }));
          expect(familySaid(base, relatives)).to.deep.equal([]);
          for (const { lab } of relatives) expect(valueOf(lab)).to.be.below(valueOf(base));
        }),
        { numRuns: runs(60) },
      );
  });

  it('say when they meet, and when a light is darker than its shadow', () => {
    const base: Lab = [70, 10, 20];
    const { relatives } = of('in light');
    const labs = relatives.map((relative) => ({ relative, lab: relativeOf(base, relative) }));
    const meeting = labs.map((one) => (one.relative.name === 'reflected light' ? { ...one, lab: labs[0]!.lab } : one));
    expect(familySaid(base, meeting)[0]).to.match(/reflected light and halftone meet/);
    const inside = labs.map((one) => (one.relative.name === 'reflected light' ? { ...one, lab: [90, 0, 0] as Lab } : one));
    expect(familySaid(base, inside)[0]).to.match(/lighter than/);
    expect(isInsideOut([40, 10, 10], [50, 5, 5])).to.equal(true);
  });

  it('of a strong yellow turn its shadow to orange and brown, not to green', () => {
    const yellow: Lab = [82, 4, 82];
    const shadow = relativeOf(yellow, of('strong yellow').relatives[1]!);
    const plain = relativeOf(yellow, of('in light').relatives[1]!);
    expect(labToMunsell(shadow).hue).to.be.below(labToMunsell(yellow).hue - 5);
    expect(labToMunsell(shadow).hue).to.be.below(labToMunsell(plain).hue - 5);
  });

  it('of a face are told of any skin: the cheek redder, the jaw duller, the lips darkest', () => {
    const face = of('face');
    for (const skin of SKINS) {
      const at = (name: string) =>
        labToMunsell(
          relativeOf(
            skin,
            face.relatives.find((one) => one.name === name)!,
          ),
        );
      const own = labToMunsell(skin);
      const turned = (hue: number): number => ((hue - own.hue + 150) % 100) - 50;
      expect(turned(at('cheek').hue), 'cheek').to.be.below(-1);
      expect(turned(at('forehead').hue), 'forehead').to.be.above(0.5);
      expect(at('forehead').value).to.be.above(own.value);
      expect(at('jaw and chin').chroma).to.be.below(own.chroma);
      expect(at('lips').value).to.be.below(Math.min(...['cheek', 'forehead', 'neck'].map((name) => at(name).value)));
    }
  });

  it('further off lose contrast; reflections lie between the thing and what gives it back', () => {
    const [dark, light]: [Lab, Lab] = [
      [20, 5, 10],
      [80, 5, 20],
    ];
    let contrast = light[0] - dark[0];
    for (const relative of of('distance').relatives) {
      const now = relativeOf(light, relative)[0] - relativeOf(dark, relative)[0];
      expect(now).to.be.below(contrast);
      contrast = now;
      expect(relativeOf(dark, relative)).to.deep.equal(furtherOff(dark, relative.off!));
    }
    for (const relative of of('reflections').relatives.slice(0, 2)) {
      expect(valueOf(relativeOf(light, relative))).to.be.below(valueOf(light));
      expect(valueOf(relativeOf(dark, relative))).to.be.above(valueOf(dark));
    }
  });

  it('are kept as steps from their base that lead there', () => {
    fc.assert(
      fc.property(things, fc.constantFrom(...of('in light').relatives, ...of('face').relatives), (base, relative) => {
        const lab = relativeOf(base, relative);
        const by = shiftBetween(base, lab);
        expect(Math.abs(valueOf(moved(base, by)) - valueOf(lab))).to.be.below(0.06);
      }),
      { numRuns: runs(60) },
    );
  });
});

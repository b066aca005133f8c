import { expect } from 'chai';
import { converter } from 'culori';
import fc from 'fast-check';
import {
  areaWarning,
  atOnce,
  best,
  binOf,
  CATALOGUE,
  compareColours,
  deltaE76,
  DISPLAY_P3,
  drawnOutline,
  edgesOf,
  EDGES,
  evenSteps,
  findGlints,
  hexToLab,
  joined,
  layPalette,
  lightOf,
  lightnessOfValue,
  markLost,
  proposeZone,
  reachOver,
  readArea,
  readOutline,
  squinted,
  strengthMap,
  surroundNote,
  toBytes,
  valueFromY,
  valueSpread,
  valueSteps,
  valuesOf,
  warmthMap,
  type Lab,
  type Pixels,
} from '../src/index.ts';
import { greyByte, picture } from './pictures.ts';
import { runs } from './runs.ts';

const lab65 = converter('lab65');
const within = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('an area', () => {
  it('leaves out a few pixels of another colour, and says so', () => {
    const fly = picture(60, 60, (x, y) => (Math.hypot(x - 30, y - 30) < 3 ? [10, 10, 10] : [0x8a, 0x6b, 0x4f]));
    const { lab, leftOut, parts } = readArea(fly, 30, 30, 12);
    expect(deltaE76(lab, hexToLab('#8a6b4f'))).to.be.below(0.01);
    expect(leftOut).to.be.within(0.02, 0.12);
    expect(parts).to.equal(undefined);
  });

  it('says which two colours it falls into, the larger first', () => {
    const edge = picture(60, 60, (x) => (x < 34 ? [0x8a, 0x6b, 0x4f] : [0x30, 0x50, 0x90]));
    const { parts, lab } = readArea(edge, 30, 30, 14);
    expect(parts).to.have.length(2);
    expect(deltaE76(parts![0].lab, hexToLab('#8a6b4f'))).to.be.below(0.01);
    expect(deltaE76(parts![1].lab, hexToLab('#305090'))).to.be.below(0.01);
    expect(parts![0].share).to.be.above(0.5);
    expect(deltaE76(lab, hexToLab('#8a6b4f')), 'blended').to.be.above(5);
  });

  it('is one colour under grain', () => {
    let seed = 1;
    const grain = (): number => ((seed = (seed * 16807) % 2147483647) / 2147483647 - 0.5) * 24;
    const grainy = picture(60, 60, () => [120 + grain(), 100 + grain(), 90 + grain()]);
    const { parts, leftOut, lab } = readArea(grainy, 30, 30, 14);
    expect(parts).to.equal(undefined);
    expect(leftOut).to.be.below(0.03);
    expect(deltaE76(lab, hexToLab('#78645a'))).to.be.below(1.5);
  });

  it('may be drawn round, joined and moved: its colour is that of what is in it', () => {
    const halves = picture(80, 80, (x) => (x < 40 ? [200, 60, 60] : [60, 60, 200]));
    const left = drawnOutline([5, 5, 35, 8, 30, 70, 8, 60]);
    expect(deltaE76(readOutline(halves, left).lab, hexToLab('#c83c3c'))).to.be.below(1e-6);
    expect(left.radius).to.be.within(20, 28);
    const both = readOutline(halves, joined([left, { x: 60, y: 40, radius: left.radius }]));
    expect(both.parts).to.have.length(2);
    expect(readOutline(halves, drawnOutline([10.2, 10.2, 10.4, 10.2, 10.3, 10.4])).pixels, 'too small to hold a pixel’s middle').to.equal(
      1,
    );
    expect(readOutline(halves, { x: 500, y: -40, radius: 3 }).pixels, 'outside').to.be.above(0);
  });

  it('counts the pixels of a drawn area as its size', () => {
    fc.assert(
      fc.property(within(10, 190), within(10, 190), within(3, 60), within(3, 60), (x, y, w, h) => {
        const flat: Pixels = { data: new Uint8ClampedArray(300 * 300 * 4), width: 300, height: 300 };
        const { pixels } = readOutline(flat, drawnOutline([x, y, x + w, y, x + w, y + h, x, y + h]));
        expect(Math.abs(pixels - w * h)).to.be.at.most(w + h + 1);
      }),
      { numRuns: runs(40) },
    );
  });

  it('reads sixteen bits and wider spaces for what they are', () => {
    const data = new Uint16Array(20 * 20 * 4);
    for (let i = 0; i < 400; i++) data.set([0.8 * 65535, 0.31 * 65535, 0.22 * 65535, 65535].map(Math.round), 4 * i);
    const { lab } = readArea({ data, width: 20, height: 20, space: DISPLAY_P3 }, 10, 10, 5);
    const { l, a, b } = lab65({ mode: 'p3', r: 0.8, g: 0.31, b: 0.22 });
    expect(deltaE76(lab, [l, a, b])).to.be.below(0.01);
  });
});

const laid = (pigments: readonly string[]) => layPalette(pigments.map((id) => ({ id, K: CATALOGUE.get(id)!.K, S: CATALOGUE.get(id)!.S })));

describe('looks', () => {
  const ramp = picture(200, 40, (x) => Array(3).fill(greyByte((x + 0.5) / 200)) as [number, number, number]);

  it('cut values into steps where the boundaries are, with the share of each', () => {
    const bounds = [valueFromY(20), valueFromY(60)];
    const { bytes, shares } = valueSteps(lightOf(ramp), bounds, { darkest: 0, lightest: 10 });
    expect(shares[0]).to.be.closeTo(0.2, 0.015);
    expect(shares[1]).to.be.closeTo(0.4, 0.02);
    expect(new Set(Array.from({ length: 200 }, (_, x) => bytes[4 * x]))).to.have.property('size', 3);
    expect(() => valueSteps(lightOf(ramp), [5, 4], { darkest: 0, lightest: 10 })).to.throw(/rise/);
    expect(evenSteps(4, { darkest: 2, lightest: 10 })).to.deep.equal([4, 6, 8]);
  });

  it('find the value that parts lights from shadows', () => {
    const two = picture(100, 100, (x) => (x < 40 ? [50, 50, 50] : [200, 200, 200]));
    const { split, shares, range } = valueSpread(two);
    expect(split).to.be.within(range.darkest + 1, range.lightest - 1);
    expect(shares.reduce((a, b) => a + b, 0)).to.be.closeTo(1, 1e-9);
  });

  it('squint in linear light and lose none of it', () => {
    const spot = picture(60, 60, (x, y) => (x === 30 && y === 30 ? [255, 255, 255] : [0, 0, 0]));
    fc.assert(
      fc.property(within(0.6, 8), (sigma) => {
        const { rgb } = squinted(lightOf(spot), sigma);
        expect(rgb.reduce((sum, v) => sum + v, 0) / 3).to.be.closeTo(1, 0.01);
        let spread = 0;
        for (let i = 0; i < 3600; i++) spread += rgb[3 * i]! * ((i % 60) - 30) ** 2;
        if (sigma > 1.5) expect(Math.sqrt(spread)).to.be.closeTo(sigma, 0.2 * sigma);
      }),
      { numRuns: runs(15) },
    );
  });

  it('part warm from cool about a pivot', () => {
    const halves = picture(40, 10, (x) => (x < 10 ? [200, 120, 60] : x < 30 ? [128, 128, 128] : [60, 110, 190]));
    expect(warmthMap(lightOf(halves), 0).shares).to.deep.equal([0.25, 0.5, 0.25]);
    expect(warmthMap(lightOf(halves), 25).shares[2], 'grey is cool beside orange').to.equal(0.75);
  });

  it('show strength as light', () => {
    const { bytes, shares } = strengthMap(lightOf(picture(20, 10, (x) => (x < 10 ? [128, 128, 128] : [220, 40, 30]))));
    expect(bytes[0]).to.be.below(5);
    expect(bytes[4 * 15]).to.be.above(200);
    expect(shares).to.deep.equal([0.5, 0, 0, 0.5]);
  });

  it('tell hard, soft and lost edges by what a squint leaves', () => {
    const kindAt = (low: number, high: number, over: number): string => {
      const edge = picture(160, 24, (x) => {
        const t = Math.min(1, Math.max(0, (x - 80) / over + 0.5));
        return Array(3).fill(Math.round(low + (high - low) * t)) as [number, number, number];
      });
      const plane = lightOf(edge);
      const middle = valuesOf(plane)[12 * 160 + 80]!;
      const kinds = [...edgesOf(plane, [middle], 3)].filter((kind) => kind > 0);
      return EDGES[Math.round(kinds.reduce((a, b) => a + b, 0) / kinds.length) - 1]!;
    };
    expect(kindAt(60, 200, 1)).to.equal('hard');
    expect(kindAt(60, 200, 40)).to.equal('soft');
    expect(kindAt(60, 200, 150)).to.equal('lost');
    expect(kindAt(120, 128, 1), 'next to no difference').to.equal('lost');
  });

  it('never harden an edge, however wide the squint', () => {
    // Clean steps of every height, ramps of every width, weak lines beside strong ones.
    const scene = picture(240, 160, (x, y) => {
      const [row, t] = [Math.floor(y / 40), x % 60];
      const wide = [1, 8, 24, 48][row]!;
      const rise = Math.min(1, Math.max(0, (t - 30) / wide + 0.5));
      return Array(3).fill(Math.round(50 + (row === 0 ? 45 * Math.floor(x / 60) : 150) * rise + (t > 36 && row < 2 ? 12 : 0))) as [
        number,
        number,
        number,
      ];
    });
    const plane = lightOf(scene);
    const bounds = [3, 4, 5, 6, 7];
    let before = edgesOf(plane, bounds, 2);
    let hard = Infinity;
    for (const sigma of [4, 8, 16, 32]) {
      const now = edgesOf(plane, bounds, sigma);
      for (let i = 0; i < now.length; i++) if (now[i]! > 0) expect(now[i], `pixel ${i} at ${sigma}`).to.be.at.least(before[i]!);
      const share = now.filter((kind) => kind === 1).length;
      expect(share).to.be.at.most(hard);
      [before, hard] = [now, share];
    }
    expect(hard, 'at the widest').to.equal(0);
    const soft = edgesOf(plane, bounds, 20);
    for (let y = 125; y < 155; y++) for (let x = 0; x < 239; x++) expect(soft[y * 240 + x], 'a ramp').to.not.equal(1);
  });

  it('mark what the photo has lost', () => {
    const lost = picture(40, 10, (x) => (x < 10 ? [0, 0, 0] : x < 30 ? [90, 90, 90] : [255, 250, 200]));
    const bytes = toBytes(lightOf(lost));
    expect(markLost(bytes, lost)).to.deep.equal([0.25, 0.25]);
    expect(bytes[4 * 20]).to.equal(90);
  });
});

describe('reach over a picture', function () {
  this.timeout(20_000);
  it('says for nearly every pixel what the engine says of it alone', () => {
    const palette = laid(['titanium-white', 'yellow-ochre', 'venetian-red', 'ivory-black']);
    const many = picture(160, 80, (x, y) => {
      const [grey, strong, hue] = [255 * (x / 159), (y % 20) * 2.6, Math.floor(y / 20)];
      const lean = [
        [1, 0, -1],
        [-0.6, 0.8, 0.2],
        [-0.8, -0.1, 1],
        [0.7, 0.5, -1],
      ][hue]!;
      return lean.map((k) => Math.round(Math.min(255, Math.max(0, grey + k * strong)))) as [number, number, number];
    });
    const { table, out } = atOnce(reachOver(palette, many));
    let [agreed, counted] = [0, 0];
    for (let i = 0; i < 160 * 80; i += 79) {
      const [r, g, b] = [many.data[4 * i]!, many.data[4 * i + 1]!, many.data[4 * i + 2]!];
      const { deltaE00 } = best(palette, readArea(many, i % 160, Math.floor(i / 160), 0).lab);
      if (Math.abs(deltaE00 - 2) < 0.5) continue;
      counted++;
      if ((table[binOf(r, g, b)] === 1) === deltaE00 > 2) agreed++;
    }
    expect(counted).to.be.above(90);
    expect(agreed / counted).to.be.above(0.96);
    expect(out).to.be.within(0.1, 0.9);
  });
});

/** A ball on a table before a wall, one light: its own shadow, the shadow it throws, light thrown back into it, a glint. */
function ball(x: number, y: number): readonly [number, number, number] {
  const tint = (v: number): [number, number, number] => [greyByte(v), greyByte(0.8 * v), greyByte(0.6 * v)];
  const table = (v: number): [number, number, number] => [greyByte(v), greyByte(0.95 * v), greyByte(0.9 * v)];
  const [dx, dy] = [(x - 200) / 80, (y - 150) / 80];
  const r = Math.hypot(dx, dy);
  if (r < 1) {
    const z = Math.sqrt(1 - r * r);
    const facing = -0.6 * dx - 0.55 * dy + 0.58 * z;
    if (Math.hypot(dx + 0.42, dy + 0.4) < 0.05) return [255, 255, 255];
    const back = 0.09 * Math.max(0, 0.75 * dx + 0.66 * dy - 0.55);
    return tint(Math.max(0, facing) * 0.5 + 0.035 + back);
  }
  const cast = Math.hypot((x - 310) / 75, (y - 232) / 16) < 1;
  if (y > 224 && y < 238 && x > 194 && x < 216) return [12, 12, 12];
  if (y > 200) return table(cast ? 0.04 : 0.45);
  return table(0.4);
}

describe('zones of light', () => {
  const scene = picture(420, 300, ball);
  const light = { spread: valueSpread(scene), glints: findGlints(scene), gains: [1, 1, 1] as const };
  const zoneAt = (x: number, y: number): string => {
    const outline = { x, y, radius: 3 };
    return proposeZone(scene, outline, readOutline(scene, outline).lab, light);
  };
  it('are proposed from value and place', () => {
    expect(zoneAt(170, 120)).to.equal('light');
    expect(zoneAt(166, 118)).to.equal('highlight');
    expect(zoneAt(310, 232)).to.equal('cast shadow');
    expect(zoneAt(240, 178)).to.equal('shadow');
    expect(zoneAt(252, 200)).to.equal('reflected light');
    expect(zoneAt(400, 60)).to.equal('light');
    expect(zoneAt(205, 231)).to.equal('accent dark');
  });
  it('tell glints from light things', () => {
    expect(light.glints.share).to.be.within(0.0001, 0.004);
    const paper = picture(400, 300, (x, y) => (x > 250 && y > 150 ? [250, 250, 248] : [70, 66, 60]));
    expect(findGlints(paper).share).to.equal(0);
  });
});

describe('two colours beside one another', () => {
  it('are told apart in words, value first', () => {
    expect(compareColours([60, 0, 0], [50, 0, 0]).words).to.deep.equal(['lighter']);
    expect(compareColours([45, 10, 4], [60, 40, 20]).words.slice(0, 3)).to.deep.equal(['darker', 'much cooler', 'much duller']);
    expect(compareColours([50, 0, 0], [50, 0, 0]).words).to.deep.equal(['the same']);
    expect(compareColours([50, 0, 40], [50, 30, 30]).words).to.include('yellower');
  });
  it('are the same difference the other way round', () => {
    const colour = fc.tuple(within(5, 95), within(-60, 60), within(-60, 60)) as fc.Arbitrary<Lab>;
    fc.assert(
      fc.property(colour, colour, (one, other) => {
        const [there, back] = [compareColours(one, other), compareColours(other, one)];
        expect(there.value).to.be.closeTo(-back.value, 1e-9);
        expect(there.chroma).to.be.closeTo(-back.chroma, 1e-9);
        expect(there.words).to.have.length(back.words.length);
      }),
    );
  });
  it('are shifted by what is round them, or not', () => {
    const grey = (value: number): Lab => [lightnessOfValue(value), 0, 0];
    expect(surroundNote(grey(5), grey(2))).to.match(/3.0 darker: it will look lighter/);
    expect(surroundNote(grey(5), grey(8))).to.match(/3.0 lighter: it will look darker/);
    expect(surroundNote(grey(5), grey(5.2))).to.equal(undefined);
    expect(surroundNote(grey(5), [lightnessOfValue(5), 30, 20]), 'grey in red').to.match(/turquoise/);
  });
  it('are warned of where light or dark is lost', () => {
    expect(
      areaWarning(
        readArea(
          picture(9, 9, () => [255, 255, 255]),
          4,
          4,
          3,
        ),
      ),
    ).to.match(/Clipped/);
  });
});

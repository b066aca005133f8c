import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import fc from 'fast-check';
import { converter, differenceCiede2000 } from 'culori';
import {
  adapt,
  deltaE00,
  deltaE76,
  fromScale,
  colourName,
  hexToLab,
  ILLUMINANTS,
  labOf,
  labToHex,
  labToLch,
  labToXyz,
  lchToLab,
  lightnessOfValue,
  relativeTemperature,
  show,
  smoothSpectrum,
  spectrumFromJson,
  colourFromText,
  temperature,
  temperatureWord,
  toScale,
  VALUE_SCALES,
  valueFromY,
  valueOfLightness,
  valueToY,
  whiteOf,
  writeValue,
  xyzToLab,
  type Lab,
} from '../src/index.ts';
import { inverse3, times3, type Row3 } from '../src/colour/threes.ts';

const file = (name: string) => readFileSync(new URL(`../data/${name}`, import.meta.url), 'utf8');
const anyLab = fc.tuple(
  fc.double({ min: 1, max: 99, noNaN: true }),
  fc.double({ min: -90, max: 90, noNaN: true }),
  fc.double({ min: -90, max: 90, noNaN: true }),
) as fc.Arbitrary<[number, number, number]>;

describe('spectra under a light', () => {
  const judged = JSON.parse(file('spectra-judged.json')) as {
    name: string;
    r: number[];
    D50: Record<string, number>;
    D65: Record<string, number>;
    A: Record<string, number>;
  }[];
  for (const light of ['D65', 'D50', 'A'] as const)
    it(`agree with an independent suite within 0.05 ΔE*ab under ${light}`, () => {
      for (const s of judged) {
        const lab = labOf(Float64Array.from(s.r), light);
        const their: Lab = [s[light]['L']!, s[light]['a']!, s[light]['b']!];
        expect(deltaE76(lab, their), s.name).to.be.below(0.05);
      }
    });

  it('give the published whites', () => {
    expect(whiteOf('D65')[0]).to.be.closeTo(95.043, 0.02);
    expect(whiteOf('D65')[2]).to.be.closeTo(108.88, 0.03);
    expect(whiteOf('D50')[0]).to.be.closeTo(96.42, 0.02);
    expect(whiteOf('A')[2]).to.be.closeTo(35.58, 0.03);
  });

  it('make a flat grey neutral under every light', () => {
    for (const light of ILLUMINANTS) {
      const [, a, b] = labOf(new Float64Array(36).fill(0.3), light);
      expect(Math.hypot(a, b), light).to.be.below(1e-9);
    }
  });

  it('are refused when the wrong length, out of range or no numbers', () => {
    const r = new Array(36).fill(0.5);
    const good = { start: 380, step: 10, r };
    expect(spectrumFromJson(good)[3]).to.equal(0.5);
    for (const bad of [
      null,
      'x',
      { ...good, r: r.slice(1) },
      { ...good, start: 400 },
      { ...good, r: r.map(() => 1.3) },
      { ...good, r: r.map(() => NaN) },
      { ...good, r: r.map(() => -0.01) },
    ])
      expect(() => spectrumFromJson(bad)).to.throw(/spectrum|Reflectance/i);
  });
});

describe('CIEDE2000', () => {
  it('meets the published pairs within 1e-4', () => {
    for (const line of file('ciede2000-pairs.csv').trim().split('\n').slice(1)) {
      const [L1, a1, b1, L2, a2, b2, dE] = line.split(',').map(Number) as number[];
      expect(deltaE00([L1!, a1!, b1!], [L2!, a2!, b2!]), line).to.be.closeTo(dE!, 1e-4);
    }
  });

  it('agrees with a colour library, is symmetric and zero only on itself', () => {
    const theirs = differenceCiede2000();
    const c = ([l, a, b]: Lab) => ({ mode: 'lab65' as const, l, a, b });
    fc.assert(
      fc.property(anyLab, anyLab, (one, other) => {
        // Between hues that lie straight opposite the mean hue, and so the formula, jumps.
        const across = one[1] * other[2] - one[2] * other[1];
        const along = one[1] * other[1] + one[2] * other[2];
        fc.pre(along >= 0 || Math.abs(across) > -1e-9 * along);
        const d = deltaE00(one, other);
        expect(d).to.be.closeTo(theirs(c(one), c(other)), 1e-4);
        expect(d).to.be.closeTo(deltaE00(other, one), 1e-9);
        expect(deltaE00(one, one)).to.equal(0);
      }),
      {
        examples: [
          [
            [1, 0.35, 1e-6],
            [1, -0.35, 1e-6],
          ],
        ],
      },
    );
  });
});

describe('colour spaces', () => {
  it('Lab, LCh and XYZ go there and back', () => {
    fc.assert(
      fc.property(anyLab, (lab) => {
        const white = whiteOf('D50');
        expect(deltaE76(xyzToLab(labToXyz(lab, white), white), lab)).to.be.below(1e-9);
        expect(deltaE76(lchToLab(labToLch(lab)), lab)).to.be.below(1e-9);
      }),
    );
  });

  it('sRGB hex agrees with the colour library', () => {
    const toLab = converter('lab65');
    for (const hex of ['#8a6b4f', '#000000', '#ffffff', '#12f0c3']) {
      const { l, a, b } = toLab(hex)!;
      expect(deltaE76(hexToLab(hex), [l, a, b])).to.be.below(1e-9);
      expect(labToHex(hexToLab(hex))).to.equal(hex);
    }
    for (const bad of ['8a6b4f', '#12', 'red', 7, null]) expect(() => hexToLab(bad)).to.throw(/hex/);
  });

  it('a colour beyond the screen keeps lightness and hue, loses chroma and says so', () => {
    const far: Lab = [60, -90, 10];
    const shown = show(far);
    expect(shown.inDisplay).to.equal(false);
    const [L, C, h] = labToLch(hexToLab(shown.css));
    expect(L).to.be.closeTo(60, 1);
    expect(C).to.be.below(labToLch(far)[1]);
    expect(h).to.be.closeTo(labToLch(far)[2], 3);
    expect(show([50, 10, 10]).inDisplay).to.equal(true);
    expect(show([55, 85, 60]).inDisplay).to.equal(false);
    expect(show([55, 85, 60], 'p3').inDisplay).to.equal(true);
  });

  it('adaptation carries one white to the other', () => {
    const to = adapt(whiteOf('A'), whiteOf('A'), whiteOf('D65'));
    to.forEach((v, i) => expect(v).to.be.closeTo(whiteOf('D65')[i]!, 1e-6));
  });

  it('a smooth spectrum has the colour it was made for', () => {
    for (const lab of [
      [50, 0, 0],
      [96, 0, 2],
      [30, 20, -30],
      [70, 5, 50],
      [15, 3, 2],
      [55, 55, 30],
    ] as Lab[])
      expect(deltaE76(labOf(smoothSpectrum(lab)), lab), String(lab)).to.be.below(0.01);
  });
});

describe('value', () => {
  it('meets the renotation table’s Y, itself rounded, within 0.0005', () => {
    const seen = new Map<number, number>();
    for (const line of file('munsell-renotation.csv').trim().split('\n').slice(1)) {
      const [, v, , , , Y] = line.split(',');
      seen.set(Number(v), Number(Y));
    }
    expect(seen.size).to.equal(9);
    for (const [v, Y] of seen) expect(valueFromY(Y)).to.be.closeTo(v, 0.0005);
  });

  it('goes there and back, from black to white', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 10, noNaN: true }), (v) => {
        expect(valueFromY(valueToY(v))).to.be.closeTo(v, 1e-6);
        expect(valueOfLightness(lightnessOfValue(v))).to.be.closeTo(v, 1e-6);
        for (const scale of VALUE_SCALES) expect(fromScale(toScale(v, scale), scale)).to.be.closeTo(v, 1e-9);
      }),
    );
    expect(valueToY(10)).to.be.closeTo(100, 0.01);
  });

  it('is written on the painter’s scale', () => {
    expect(writeValue(4.21)).to.equal('4.2');
    expect(writeValue(10, 'ten-steps')).to.equal('1.0');
    expect(writeValue(0, 'five-steps')).to.equal('5.0');
    expect(writeValue(4.2, 'per-cent-grey')).to.equal('58 %');
  });
});

describe('temperature', () => {
  it('is warm at 55°, cool at 235°, nothing at neutral', () => {
    expect(temperature(lchToLab([50, 20, 55]))).to.be.closeTo(20, 1e-9);
    expect(temperature(lchToLab([50, 20, 235]))).to.be.closeTo(-20, 1e-9);
    expect(Math.abs(temperature([50, 0, 0]))).to.equal(0);
    // Grass and full greens are no warm colours, olives and young leaves are; it goes evenly from one to the other.
    for (const munsell of ['7.5GY 5/5', '2.5G 5/8', '5G 5/4', '10GY 3/3'])
      expect(temperature(colourFromText(munsell)), munsell).to.be.below(0);
    for (const munsell of ['5Y 5/4', '10Y 6/4', '2.5GY 7/4']) expect(temperature(colourFromText(munsell)), munsell).to.be.above(0);
    for (let h = 56; h <= 235; h++) expect(temperature(lchToLab([50, 20, h]))).to.be.below(temperature(lchToLab([50, 20, h - 1])));
  });

  it('lets the painter say which blue is the warm one', () => {
    const reddish = lchToLab([40, 30, 285]);
    const greenish = lchToLab([40, 30, 235]);
    expect(temperature(reddish)).to.be.above(temperature(greenish));
    expect(temperature(reddish, 'green-leaning')).to.be.below(temperature(greenish, 'green-leaning'));
  });

  it('grades near-greys finely', () => {
    const words = [0.2, 1, 3, 8, 20, 60].map(temperatureWord);
    expect(new Set(words).size).to.equal(6);
    expect(relativeTemperature([50, 1, 1], [50, -1, -1])).to.be.above(2);
  });
});

describe('what a colour is called', () => {
  it('is what a painter says of it', () => {
    const called = (hex: string): string => colourName(hexToLab(hex));
    expect(['#000000', '#777777', '#ffffff'].map(called)).to.deep.equal(['black', 'grey', 'white']);
    expect(called('#9a8f5c')).to.equal('khaki');
    expect(called('#7a3f24')).to.be.oneOf(['russet', 'chestnut', 'nut brown']);
    expect(called('#6a7f5a')).to.match(/green$/);
    expect(called('#1d2a52')).to.be.oneOf(['navy', 'midnight blue']);
  });

  it('is a word for every colour, the same each time, and no hue for what has none', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 0xffffff }), (rgb) => {
        const lab = hexToLab(`#${rgb.toString(16).padStart(6, '0')}`);
        const name = colourName(lab);
        expect(name).to.match(/^[a-z][a-z -]+$/);
        expect(colourName(lab)).to.equal(name);
      }),
    );
    fc.assert(
      fc.property(fc.double({ min: 0, max: 100, noNaN: true }), (L) => {
        expect(colourName([L, 0, 0])).to.match(/black|charcoal|grey|white/);
      }),
    );
  });
});

describe('three equations in three unknowns', () => {
  const small = fc.double({ min: -1, max: 1, noNaN: true });
  const row = fc.tuple(small, small, small) as fc.Arbitrary<Row3>;

  it('an inverse takes a column back to where it came from', () => {
    fc.assert(
      fc.property(row, row, row, row, (r, s, t, column) => {
        // Each row leans on an axis of its own, so that none lies in the plane of the others.
        const matrix = [
          [3 + r[0], r[1], r[2]],
          [s[0], 3 + s[1], s[2]],
          [t[0], t[1], 3 + t[2]],
        ] as const;
        times3(inverse3(matrix), times3(matrix, column)).forEach((v, k) => expect(v).to.be.closeTo(column[k]!, 1e-9));
      }),
    );
  });

  it('rows that lie in a plane have none', () => {
    const flat = [
      [1, 2, 3],
      [2, 4, 6],
      [0, 1, 0],
    ] as const;
    expect(() => inverse3(flat)).to.throw(RangeError, 'plane');
  });
});

import { expect } from 'chai';
import { colourFromWords, CraftError, labToLch, NAMED_COLOURS, valueOfColour, type Lab } from '../src/index.ts';

type Range = readonly [from: number, to: number];
/** Where a hue that is said lies: value, chroma, and hue in degrees, from one to the other the way numbers grow. */
interface Region {
  readonly value: Range;
  readonly chroma: Range;
  readonly hue?: Range;
}

const HUES: Readonly<Record<string, Region>> = {
  red: { value: [3, 5.5], chroma: [45, 95], hue: [15, 45] },
  orange: { value: [5, 7.5], chroma: [55, 100], hue: [45, 75] },
  yellow: { value: [7.5, 9.3], chroma: [55, 110], hue: [82, 105] },
  green: { value: [4, 6.5], chroma: [30, 75], hue: [120, 170] },
  turquoise: { value: [5, 8], chroma: [20, 60], hue: [175, 225] },
  blue: { value: [3, 5.5], chroma: [35, 80], hue: [250, 300] },
  violet: { value: [2.5, 5], chroma: [35, 80], hue: [295, 325] },
  purple: { value: [2.5, 5], chroma: [30, 75], hue: [305, 345] },
  pink: { value: [6, 8.5], chroma: [15, 50], hue: [345, 400] },
  brown: { value: [2.5, 5], chroma: [12, 40], hue: [40, 80] },
  grey: { value: [4, 6.5], chroma: [0, 8] },
  ochre: { value: [4.5, 7], chroma: [35, 65], hue: [65, 88] },
};

const within = (at: number, [from, to]: Range): boolean => at >= from && at <= to;
const hueWithin = (hue: number, [from, to]: Range): boolean => within(hue, [from, to]) || within(hue + 360, [from, to]);

/** What a word does to where a colour lies. */
const WORDS: Readonly<Record<string, (is: Region) => Partial<Region>>> = {
  light: ({ value: [, to], chroma: [from, most] }) => ({ value: [6.8, Math.max(9.2, to)], chroma: [from * 0.4, most] }),
  pale: ({ chroma: [from, most] }) => ({ value: [7.6, 9.8], chroma: [from * 0.2, most * 0.75] }),
  dark: ({ value: [, to], chroma: [from, most] }) => ({ value: [0.8, Math.max(3.8, to - 2)], chroma: [from * 0.4, most] }),
  'very dark': ({ value: [, to], chroma: [from, most] }) => ({ value: [0.3, Math.max(2.6, to - 4)], chroma: [from * 0.2, most] }),
  dull: ({ chroma: [from, most] }) => ({ chroma: [from * 0.4, most * 0.75] }),
  'very dull': ({ chroma: [from, most] }) => ({ chroma: [from * 0.2, most * 0.55] }),
  bright: ({ value: [from, to], chroma: [least] }) => ({ value: [from, Math.min(9.6, to + 1.5)], chroma: [least, 140] }),
  deep: ({ value: [, to] }) => ({ value: [1, Math.max(4.2, to - 1)] }),
  muted: ({ chroma: [from, most] }) => ({ chroma: [from * 0.4, most * 0.75] }),
  'slightly dull': ({ chroma: [from, most] }) => ({ chroma: [from * 0.6, most] }),
  strong: ({ chroma: [from] }) => ({ chroma: [from, 140] }),
  'light dull': ({ value: [, to], chroma: [, most] }) => ({ value: [6.8, Math.max(9.2, to)], chroma: [0, most * 0.7] }),
  'dark dull': ({ value: [, to], chroma: [, most] }) => ({ value: [0.8, Math.max(3.8, to - 2)], chroma: [0, most * 0.8] }),
  faded: ({ value: [from, to], chroma: [, most] }) => ({ value: [from, Math.max(8.6, to)], chroma: [0, most * 0.75] }),
};

/** Two hues, the second what it is and the first what it leans to; and things by their names. */
const SAID: Readonly<Record<string, Region>> = {
  'blue green': { value: [3.5, 6.5], chroma: [20, 60], hue: [155, 235] },
  'blue-green': { value: [3.5, 6.5], chroma: [20, 60], hue: [155, 235] },
  'green blue': { value: [3.5, 6.5], chroma: [15, 60], hue: [190, 278] },
  'bluish green': { value: [3.5, 6.5], chroma: [20, 60], hue: [150, 215] },
  'greenish blue': { value: [3, 6], chroma: [20, 65], hue: [215, 285] },
  'purple grey': { value: [4, 6.5], chroma: [6, 20], hue: [290, 350] },
  'violet grey': { value: [4, 6.5], chroma: [6, 20], hue: [280, 330] },
  'pink grey': { value: [4.5, 7.5], chroma: [5, 20], hue: [340, 400] },
  'brown grey': { value: [4, 6.5], chroma: [5, 20], hue: [40, 90] },
  'yellow grey': { value: [4.5, 7.5], chroma: [5, 20], hue: [75, 110] },
  'greenish grey': { value: [4, 6.5], chroma: [5, 20], hue: [110, 185] },
  'purplish grey': { value: [4, 6.5], chroma: [5, 20], hue: [290, 350] },
  'light purple grey': { value: [6.8, 9], chroma: [3, 20], hue: [290, 350] },
  'dark blue grey': { value: [1, 4.5], chroma: [4, 20], hue: [225, 280] },
  'red brown': { value: [2.5, 5], chroma: [20, 60], hue: [25, 58] },
  'reddish brown': { value: [2.5, 5], chroma: [18, 50], hue: [30, 65] },
  'yellow brown': { value: [3.5, 6.5], chroma: [20, 65], hue: [65, 92] },
  'orange brown': { value: [3, 6], chroma: [25, 65], hue: [48, 75] },
  'purple brown': { value: [2, 5], chroma: [8, 45], hue: [330, 420] },
  'grey brown': { value: [3, 5.5], chroma: [5, 22], hue: [45, 85] },
  'grey blue': { value: [3.5, 6], chroma: [10, 40], hue: [250, 300] },
  'grey green': { value: [4, 6.5], chroma: [10, 35], hue: [120, 170] },
  'greyish pink': { value: [5.5, 8.5], chroma: [5, 25], hue: [340, 400] },
  'yellow green': { value: [5, 8], chroma: [35, 90], hue: [105, 145] },
  'yellowish green': { value: [4.5, 7.5], chroma: [35, 80], hue: [105, 150] },
  'orange red': { value: [3.5, 6.5], chroma: [50, 95], hue: [30, 55] },
  'blue violet': { value: [2.5, 5.5], chroma: [35, 80], hue: [285, 312] },
  'red violet': { value: [2.5, 5.5], chroma: [25, 80], hue: [312, 365] },
  'orange yellow': { value: [6.5, 9], chroma: [55, 100], hue: [68, 95] },
  'pinkish white': { value: [8.5, 10], chroma: [2, 18], hue: [330, 405] },
  'bluish white': { value: [8.3, 10], chroma: [2, 18], hue: [240, 310] },
  'brownish black': { value: [0.3, 2.5], chroma: [2, 18], hue: [40, 90] },
  peach: { value: [7, 9], chroma: [18, 50], hue: [45, 75] },
  coral: { value: [5.5, 7.8], chroma: [35, 75], hue: [20, 50] },
  ivory: { value: [8.8, 9.9], chroma: [3, 20], hue: [75, 110] },
  burgundy: { value: [1.5, 3.8], chroma: [20, 50], hue: [0, 35] },
  chocolate: { value: [1.8, 3.8], chroma: [10, 32], hue: [35, 70] },
  mint: { value: [7.5, 9.5], chroma: [10, 40], hue: [140, 180] },
  indigo: { value: [1.2, 3.6], chroma: [20, 60], hue: [275, 310] },
  mud: { value: [2.8, 5], chroma: [8, 30], hue: [55, 95] },
  'forest green': { value: [2, 4.5], chroma: [15, 50], hue: [130, 165] },
  copper: { value: [4, 6], chroma: [30, 65], hue: [40, 65] },
  silver: { value: [6.5, 8.5], chroma: [0, 6] },
  shadow: { value: [1.5, 4], chroma: [0, 14] },
  'pale peach': { value: [8, 9.6], chroma: [8, 35], hue: [45, 75] },
  'dull peach': { value: [7, 9], chroma: [8, 28], hue: [45, 75] },
  'warm grey': { value: [4, 6.5], chroma: [3, 14], hue: [30, 95] },
  'cool grey': { value: [4, 6.5], chroma: [3, 14], hue: [200, 290] },
  'very pale sky blue': { value: [8, 9.8], chroma: [2, 22], hue: [220, 265] },
  'deep sea green': { value: [2.5, 5.5], chroma: [18, 45], hue: [155, 195] },
  'dusty rose': { value: [5, 7.5], chroma: [12, 35], hue: [350, 385] },
  'pale warm yellow': { value: [8.3, 9.9], chroma: [15, 60], hue: [75, 102] },
  'cold dark blue': { value: [1, 3.6], chroma: [25, 75], hue: [245, 300] },
  'rich brown': { value: [2.3, 4.6], chroma: [20, 50], hue: [45, 80] },
  'the colour of honey': { value: [6, 8], chroma: [35, 75], hue: [65, 88] },
  'a dull green': { value: [4, 6.5], chroma: [12, 50], hue: [120, 170] },
  'light grey': { value: [6.3, 8], chroma: [0, 4] },
  'pale blue green': { value: [7.6, 9.8], chroma: [4, 45], hue: [155, 235] },
  'dark purple grey': { value: [0.8, 4], chroma: [2, 20], hue: [285, 350] },
  'dull blue green': { value: [3.5, 6.5], chroma: [8, 40], hue: [155, 235] },
  'light peach': { value: [7, 9.8], chroma: [8, 50], hue: [45, 75] },
  'dark red brown': { value: [0.8, 3.8], chroma: [8, 60], hue: [20, 60] },
  'pale yellow green': { value: [7.6, 9.8], chroma: [8, 70], hue: [105, 145] },
  'light warm grey': { value: [6.3, 8.6], chroma: [2, 14], hue: [30, 95] },
  'dark cool grey': { value: [1, 4], chroma: [2, 14], hue: [200, 290] },
  'warm white': { value: [8.8, 10], chroma: [1, 14], hue: [50, 110] },
  'cool black': { value: [0.2, 2.5], chroma: [0, 14], hue: [200, 300] },
  'warm black': { value: [0.2, 2.5], chroma: [0, 14], hue: [20, 100] },
  'violet blue': { value: [2, 5], chroma: [35, 90], hue: [275, 305] },
  'purple red': { value: [2.5, 5.5], chroma: [30, 80], hue: [330, 375] },
  'pinkish grey': { value: [4.5, 7.5], chroma: [4, 20], hue: [335, 405] },
  'bluish grey': { value: [4, 6.5], chroma: [4, 20], hue: [230, 285] },
  'yellowish white': { value: [8.5, 10], chroma: [3, 22], hue: [75, 112] },
  'brown, value 3': { value: [2.99, 3.01], chroma: [8, 50], hue: [40, 80] },
  'grey, value 6.5': { value: [6.49, 6.51], chroma: [0, 4] },
  'dark grey': { value: [1.5, 4], chroma: [0, 4] },
  'very dark brown': { value: [0.3, 2.6], chroma: [3, 35], hue: [35, 85] },
  'light brown': { value: [6, 8.5], chroma: [10, 50], hue: [45, 85] },
  'dull orange': { value: [4.5, 7], chroma: [18, 60], hue: [45, 75] },
  'muted violet': { value: [2.5, 6], chroma: [10, 50], hue: [285, 335] },
  'strong yellow': { value: [7, 9.5], chroma: [60, 140], hue: [80, 105] },
  sand: { value: [6.5, 8.5], chroma: [10, 35], hue: [65, 95] },
  rust: { value: [3, 5.2], chroma: [30, 65], hue: [35, 58] },
  olive: { value: [3.5, 5.5], chroma: [20, 55], hue: [95, 120] },
  slate: { value: [3, 5.5], chroma: [3, 20], hue: [210, 285] },
  cream: { value: [8.6, 9.8], chroma: [6, 28], hue: [75, 105] },
  terracotta: { value: [4, 6.2], chroma: [30, 60], hue: [35, 58] },
  plum: { value: [2, 4.2], chroma: [15, 45], hue: [310, 365] },
  'green, value 7': { value: [6.99, 7.01], chroma: [25, 75], hue: [120, 170] },
};

const failed: string[] = [];
function tried(phrase: string, { value, chroma, hue }: Region): void {
  const lab = colourFromWords(phrase);
  const [, C, h] = labToLch(lab);
  const v = valueOfColour(lab);
  const isThere = within(v, value) && within(C, chroma) && (!hue || hueWithin(h, hue));
  if (!isThere) failed.push(`${phrase}: value ${v.toFixed(1)}, chroma ${C.toFixed(0)}, hue ${h.toFixed(0)}`);
}

describe('colours in words', () => {
  it('lie where three hundred phrases say', () => {
    failed.length = 0;
    let phrases = 0;
    for (const [name, region] of Object.entries(HUES)) {
      tried(name, region);
      phrases++;
      for (const [word, moved] of Object.entries(WORDS)) {
        // A grey has no strength to be changed.
        if (name === 'grey' && /dull|bright|muted|strong|faded/.test(word)) continue;
        // What only a screen shows has a name of its own.
        if (NAMED_COLOURS.some(([named]) => named === `bright ${name}`) && word === 'bright') continue;
        tried(`${word} ${name}`, { ...region, ...moved(region) });
        phrases++;
      }
      for (const [lean, share] of [
        ['warm', 1],
        ['cool', 1],
      ] as const) {
        const turned =
          name === 'grey' ? { chroma: [0, 14] as const } : { hue: [region.hue![0] - 25 * share, region.hue![1] + 25 * share] as const };
        tried(`${lean} ${name}`, { ...region, chroma: [region.chroma[0] - 9, region.chroma[1] + 9], ...turned });
        tried(`slightly ${lean} ${name}`, { ...region, chroma: [region.chroma[0] - 9, region.chroma[1] + 9], ...turned });
        phrases += 2;
      }
    }
    for (const [phrase, region] of Object.entries(SAID)) {
      tried(phrase, region);
      phrases++;
    }
    expect(failed).to.deep.equal([]);
    expect(phrases).to.be.at.least(300);
  });

  it('are told from what is there: a thing, a pile, the last one, two of them', () => {
    const wall: Lab = [60, 4, 16];
    const door: Lab = [35, -2, -20];
    const of = { named: new Map([['wall in the sun', wall] as const, ['door', door] as const]), these: [wall, door], last: door };
    const value = (text: string): number => valueOfColour(colourFromWords(text, of));
    expect(value('darker than the wall in the sun')).to.be.closeTo(valueOfColour(wall) - 1, 0.01);
    expect(value('a little darker than the wall')).to.be.closeTo(valueOfColour(wall) - 0.5, 0.01);
    expect(value('much lighter than the door')).to.be.closeTo(valueOfColour(door) + 1.7, 0.01);
    expect(value('just lighter than the last')).to.be.closeTo(valueOfColour(door) + 1, 0.01);
    expect(colourFromWords('between these two', of)).to.deep.equal([47.5, 1, -2]);
    expect(colourFromWords('half way between the wall and the door', of)).to.deep.equal([47.5, 1, -2]);
    expect(colourFromWords('the same as the door', of)).to.deep.equal(door);
    expect(labToLch(colourFromWords('duller than the door', of))[1]).to.be.below(labToLch(door)[1] - 4);
    expect(colourFromWords('redder than the wall', of)[1]).to.be.above(wall[1] + 3);
    expect(value('darker than slate')).to.be.below(valueOfColour(colourFromWords('slate')));
    for (const [text, says] of [
      ['darker than the moon', /moon.*wall in the sun/],
      ['between', /Say a colour|is not a word/],
      ['between these two', /which two/],
      ['sweeter than the wall', /sweeter/],
    ] as const)
      expect(() => colourFromWords(text, text === 'between these two' ? {} : of), text).to.throw(CraftError, says);
  });
});

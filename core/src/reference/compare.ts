import { deltaE00 } from '../colour/difference.ts';
import { hueDifference, labToLch, type Lab } from '../colour/spaces.ts';
import { relativeTemperature, relativeTemperatureWord, type WarmBlue } from '../colour/temperature.ts';
import { valueOfLightness } from '../colour/value.ts';

/** How one colour differs from another, in figures and in a painter's words. */
export interface Compared {
  /** Steps of value; positive is lighter. */
  readonly value: number;
  /** Degrees of hue the shortest way round; nothing where one of them has none. */
  readonly hue: number | undefined;
  readonly chroma: number;
  readonly temperature: number;
  readonly deltaE00: number;
  /** `lighter, cooler, duller`; value first. */
  readonly words: readonly string[];
}

/** Below this chroma a hue means nothing. */
const NO_HUE = 4;

const graded = (amount: number, [a, some, much]: readonly [number, number, number], word: string): string[] => {
  if (amount < a) return [];
  return [amount < some ? `slightly ${word}` : amount < much ? word : `much ${word}`];
};

/** Hue names around the circle, by the way a painter says a colour leans. */
const LEANS: readonly (readonly [hue: number, word: string])[] = [
  [15, 'pinker'],
  [45, 'redder'],
  [70, 'more orange'],
  [98, 'yellower'],
  [150, 'greener'],
  [215, 'more turquoise'],
  [275, 'bluer'],
  [325, 'more violet'],
];

/** What a colour leans to when its hue goes from one to another: the nearest to where it arrives, on that side of where it set out. */
function lean(from: number, to: number): string {
  const onward = hueDifference(from, to) > 0;
  const isOnTheWay = (hue: number): boolean => hueDifference(from, hue) > 0 === onward && Math.abs(hueDifference(from, hue)) > 8;
  const off = ([hue]: readonly [number, string]): number => Math.abs(hueDifference(hue, to));
  return LEANS.filter(([hue]) => isOnTheWay(hue)).sort((a, b) => off(a) - off(b))[0]![1];
}

/** How a colour differs from one it is held beside. */
export function compareColours(lab: Lab, than: Lab, warmBlue?: WarmBlue): Compared {
  const [, C1, h1] = labToLch(lab);
  const [, C2, h2] = labToLch(than);
  const value = valueOfLightness(lab[0]) - valueOfLightness(than[0]);
  const chroma = C1 - C2;
  const hue = Math.min(C1, C2) < NO_HUE ? undefined : hueDifference(h2, h1);
  const temperature = relativeTemperature(lab, than, warmBlue);
  const words = [
    ...graded(Math.abs(value), [0.05, 0.2, 1.5], value > 0 ? 'lighter' : 'darker'),
    ...(Math.abs(temperature) < 0.5 ? [] : [relativeTemperatureWord(temperature)]),
    ...graded(Math.abs(chroma), [1, 3, 20], chroma > 0 ? 'brighter' : 'duller'),
    ...(hue !== undefined && Math.abs(hue) > 6 ? [lean(h2, h1)] : []),
  ];
  return { value, hue, chroma, temperature, deltaE00: deltaE00(lab, than), words: words.length > 0 ? words : ['the same'] };
}

/** Value steps of surround from which the eye is misled enough to say so. */
const MISLEADS = 0.8;
const TINTS = 10;

/**
 * How what lies round a colour will shift it in the eye (simultaneous contrast): away from its surround.
 * @returns a sentence; nothing where the surround does little
 */
export function surroundNote(lab: Lab, surround: Lab): string | undefined {
  const by = valueOfLightness(lab[0]) - valueOfLightness(surround[0]);
  const hueOff: Lab = [0, lab[1] - surround[1], lab[2] - surround[2]];
  const notes: string[] = [];
  if (Math.abs(by) > MISLEADS) notes.push(by > 0 ? 'lighter' : 'darker');
  const [, C, h] = labToLch([0, surround[1], surround[2]]);
  if (C > TINTS && Math.hypot(hueOff[1], hueOff[2]) > TINTS) {
    const away = LEANS.map(([hue, word]) => ({ word, off: Math.abs(hueDifference(hue, (h + 180) % 360)) })).sort(
      (a, b) => a.off - b.off,
    )[0]!;
    notes.push(away.word);
  }
  if (notes.length === 0) return undefined;
  const value =
    Math.abs(by) > MISLEADS
      ? `What is round it is ${Math.abs(by).toFixed(1)} ${by > 0 ? 'darker' : 'lighter'}`
      : 'What is round it is of another colour';
  return `${value}: it will look ${notes.join(' and ')} there than alone on the palette.`;
}

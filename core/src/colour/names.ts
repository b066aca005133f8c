import { deltaE00From } from './difference.ts';
import { lchToLab, type Lab } from './spaces.ts';

/**
 * Colours that have a name among painters, as L*, C* and h° under D65. Everyday words, no pigments: a name
 * says how a colour looks, not what it was mixed from.
 */
export const NAMED_COLOURS: readonly (readonly [name: string, L: number, C: number, h: number])[] = [
  ['black', 8, 0, 0],
  ['charcoal', 22, 1, 0],
  ['dark grey', 36, 0, 0],
  ['grey', 52, 0, 0],
  ['light grey', 70, 0, 0],
  ['pale grey', 84, 0, 0],
  ['white', 97, 1, 95],
  ['warm black', 14, 5, 60],
  ['warm dark grey', 34, 6, 65],
  ['warm grey', 54, 7, 70],
  ['stone', 72, 8, 82],
  ['bone', 88, 8, 88],
  ['blue-black', 12, 7, 265],
  ['slate', 40, 9, 255],
  ['blue grey', 56, 9, 252],
  ['silver grey', 74, 6, 245],
  ['green grey', 52, 8, 150],
  ['pale green grey', 78, 7, 145],
  ['mauve grey', 54, 8, 330],
  ['oxblood', 22, 28, 25],
  ['maroon', 28, 38, 18],
  ['crimson', 38, 62, 18],
  ['brick', 42, 46, 36],
  ['scarlet', 50, 84, 36],
  ['red', 44, 72, 30],
  ['rose', 58, 46, 8],
  ['old rose', 58, 24, 16],
  ['pink', 78, 26, 6],
  ['salmon', 70, 44, 38],
  ['blush', 82, 15, 42],
  ['flesh', 74, 24, 56],
  ['dark brown', 22, 16, 60],
  ['chestnut', 31, 32, 48],
  ['nut brown', 38, 26, 66],
  ['russet', 40, 46, 50],
  ['rust', 48, 62, 54],
  ['terracotta', 56, 42, 50],
  ['taupe', 46, 12, 62],
  ['fawn', 60, 18, 66],
  ['tan', 65, 30, 72],
  ['sand', 78, 22, 82],
  ['cream', 91, 17, 92],
  ['orange', 65, 84, 62],
  ['amber', 70, 72, 74],
  ['apricot', 78, 42, 68],
  ['ochre', 60, 50, 77],
  ['dark ochre', 44, 40, 75],
  ['mustard', 66, 58, 91],
  ['khaki', 58, 28, 96],
  ['straw', 84, 38, 93],
  ['golden yellow', 78, 80, 84],
  ['yellow', 86, 88, 95],
  ['lemon', 91, 72, 102],
  ['pale yellow', 93, 34, 99],
  ['olive', 42, 36, 105],
  ['dark olive', 26, 18, 105],
  ['lime', 80, 66, 115],
  ['moss green', 44, 32, 120],
  ['leaf green', 52, 56, 130],
  ['sage green', 66, 16, 126],
  ['pale green', 85, 26, 132],
  ['bottle green', 24, 24, 155],
  ['fir green', 34, 26, 145],
  ['green', 50, 50, 148],
  ['emerald green', 58, 66, 155],
  ['jade green', 66, 36, 160],
  ['sea green', 56, 30, 174],
  ['teal', 42, 30, 205],
  ['petrol', 28, 20, 225],
  ['turquoise', 66, 42, 198],
  ['duck-egg blue', 84, 14, 200],
  ['navy', 18, 28, 280],
  ['midnight blue', 14, 44, 298],
  ['steel blue', 50, 22, 250],
  ['denim blue', 42, 34, 270],
  ['blue', 42, 62, 282],
  ['deep blue', 26, 66, 298],
  ['azure', 58, 46, 262],
  ['sky blue', 75, 28, 242],
  ['powder blue', 84, 14, 248],
  ['cornflower blue', 62, 42, 280],
  ['violet', 38, 60, 308],
  ['aubergine', 20, 22, 325],
  ['lavender', 74, 22, 298],
  ['lilac', 74, 26, 318],
  ['mauve', 58, 22, 325],
  ['plum', 33, 34, 338],
  ['purple', 36, 56, 322],
  ['magenta', 48, 68, 348],
];
const ANCHORS: readonly (readonly [name: string, lab: Lab])[] = NAMED_COLOURS.map(([name, L, C, h]) => [name, lchToLab([L, C, h])]);

/** What a painter calls a colour: `khaki`, `slate`, `flesh`; the nearest named one by CIEDE2000. */
export function colourName(lab: Lab): string {
  const from = deltaE00From(lab);
  let name = '';
  let least = Infinity;
  for (const [called, [L, a, b]] of ANCHORS) {
    const away = from(L, a, b);
    if (away < least) [least, name] = [away, called];
  }
  return name;
}

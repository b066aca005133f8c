import { labToLch, lchToLab, type Lab } from '../colour/spaces.ts';
import { lightnessOfValue, valueOfLightness } from '../colour/value.ts';
import { mixtureAt, type MixtureTable, type TableMixture } from './table.ts';

/** A chip: a mixture that stands for the colours about it. */
export interface Chip extends TableMixture {
  /** Where it lies: a column of hue, a row of strength or of value, from 0. */
  readonly column: number;
  readonly row: number;
}

export interface ChipSheet {
  readonly columns: number;
  readonly rows: number;
  readonly chips: readonly Chip[];
  /** What each row is, from the first: a value, or the least strength (C*). */
  readonly steps: readonly number[];
  readonly by: 'strength' | 'value';
}

/** Families of colours that a painter asks for, by hue (degrees, may go past 360), strength and lightness. */
export const CHIP_FAMILIES = {
  greys: { hue: [0, 360], chroma: [0, 9], light: [8, 97] },
  greens: { hue: [98, 188], chroma: [9, 100], light: [8, 97] },
  skins: { hue: [32, 82], chroma: [10, 42], light: [22, 90] },
  skies: { hue: [205, 292], chroma: [3, 50], light: [45, 97] },
} as const satisfies Record<string, FamilyBounds>;
export type ChipFamily = keyof typeof CHIP_FAMILIES;
interface FamilyBounds {
  readonly hue: readonly [number, number];
  readonly chroma: readonly [number, number];
  readonly light: readonly [number, number];
}

const HUES = 24;
const STRENGTH_STEP = 7;
const STRENGTHS = 14;
/** Value steps that a mixture may lie beside the one that is looked at. */
const BESIDE = 0.18;
const FAMILY_HUES = 14;
const VALUE_STEP = 0.5;
/** What a tube more than needed costs, ΔE; and a dose that is small. */
const PER_TUBE = 2.5;
const SMALL_DOSE = 1.5;

/** How gladly a mixture is taken for a cell: near its middle, of few tubes, in doses that are easily laid. */
function cost({ lab, parts }: TableMixture, middle: Lab): number {
  const away = Math.hypot(lab[0] - middle[0], lab[1] - middle[1], lab[2] - middle[2]);
  const least = Math.min(...parts) / parts.reduce((sum, n) => sum + n, 0);
  return away + PER_TUBE * parts.length + (least < 0.04 ? SMALL_DOSE : 0);
}

const isOf = (table: MixtureTable, at: number, without: ReadonlySet<number>): boolean => {
  for (let k = 0; k < 3; k++) if (without.has(table.tubes[3 * at + k]!)) return false;
  return true;
};

/** Takes the best mixture of each cell. */
class Cells {
  private readonly best = new Map<number, { readonly chip: Chip; readonly cost: number }>();

  offer(mixture: TableMixture, column: number, row: number, middle: Lab): void {
    const own = cost(mixture, middle);
    const key = row * 64 + column;
    const known = this.best.get(key);
    if (!known || own < known.cost) this.best.set(key, { chip: { ...mixture, column, row }, cost: own });
  }
  get chips(): Chip[] {
    return [...this.best.values()].map(({ chip }) => chip);
  }
}

/**
 * What a palette makes at one value: columns by hue, rows by strength, the dullest first.
 * @param without tubes, by their number, that are not to be in them
 */
export function chipsAtValue(table: MixtureTable, value: number, without: ReadonlySet<number> = new Set()): ChipSheet {
  const cells = new Cells();
  const low = lightnessOfValue(Math.max(0, value - BESIDE));
  const high = lightnessOfValue(Math.min(10, value + BESIDE));
  const L = lightnessOfValue(value);
  for (let at = 0; at < table.count; at++) {
    const l = table.lab[3 * at]!;
    if (l < low || l > high || !isOf(table, at, without)) continue;
    const mixture = mixtureAt(table, at);
    const [, C, h] = labToLch(mixture.lab);
    const row = Math.min(STRENGTHS - 1, Math.floor(C / STRENGTH_STEP));
    const column = Math.floor(((h + 360 / HUES / 2) % 360) / (360 / HUES));
    cells.offer(mixture, column, row, lchToLab([L, (row + 0.5) * STRENGTH_STEP, (column * 360) / HUES]));
  }
  return {
    columns: HUES,
    rows: STRENGTHS,
    chips: cells.chips,
    steps: Array.from({ length: STRENGTHS }, (_, i) => i * STRENGTH_STEP),
    by: 'strength',
  };
}

/** What a palette makes of a family of colours: columns by hue, rows by value in half steps, the lightest first. */
export function chipsOfFamily(table: MixtureTable, family: ChipFamily, without: ReadonlySet<number> = new Set()): ChipSheet {
  const { hue, chroma, light } = CHIP_FAMILIES[family];
  const cells = new Cells();
  const width = hue[1] - hue[0];
  const top = Math.floor(valueOfLightness(light[1]) / VALUE_STEP) * VALUE_STEP;
  const bottom = Math.ceil(valueOfLightness(light[0]) / VALUE_STEP) * VALUE_STEP;
  const rows = Math.round((top - bottom) / VALUE_STEP) + 1;
  for (let at = 0; at < table.count; at++) {
    const l = table.lab[3 * at]!;
    if (l < light[0] || l > light[1]) continue;
    const C = Math.hypot(table.lab[3 * at + 1]!, table.lab[3 * at + 2]!);
    if (C < chroma[0] || C > chroma[1] || !isOf(table, at, without)) continue;
    const mixture = mixtureAt(table, at);
    const h = labToLch(mixture.lab)[2];
    const turned = (h - hue[0] + 720) % 360;
    if (turned > width) continue;
    const value = valueOfLightness(mixture.lab[0]);
    const row = Math.round((top - value) / VALUE_STEP);
    if (row < 0 || row >= rows) continue;
    const column = Math.min(FAMILY_HUES - 1, Math.floor((turned / width) * FAMILY_HUES));
    const middleHue = hue[0] + ((column + 0.5) / FAMILY_HUES) * width;
    const middle = lchToLab([lightnessOfValue(top - row * VALUE_STEP), (chroma[0] + Math.min(chroma[1], 40)) / 2, middleHue]);
    cells.offer(mixture, column, row, middle);
  }
  return {
    columns: FAMILY_HUES,
    rows,
    chips: cells.chips,
    steps: Array.from({ length: rows }, (_, i) => top - i * VALUE_STEP),
    by: 'value',
  };
}

/** What a palette has at its ends. */
export interface PaletteEnds {
  readonly darkest: TableMixture;
  readonly lightest: TableMixture;
  /** The darkest that has no colour to speak of, and the most neutral grey of value 5; none where nothing comes near. */
  readonly black: TableMixture | undefined;
  readonly grey: TableMixture | undefined;
  /** The strongest of each twelfth of the hue circle, by its strength (C*). */
  readonly strongest: readonly { readonly hue: number; readonly chroma: number; readonly mixture: TableMixture }[];
}

const COLOURLESS = 4;
const TWELFTHS = 12;
const MIDDLE = lightnessOfValue(5);

export function endsOf(table: MixtureTable, without: ReadonlySet<number> = new Set()): PaletteEnds | undefined {
  let darkest = -1;
  let lightest = -1;
  let black = -1;
  let grey = -1;
  let greyness = Infinity;
  const strongest = new Map<number, { readonly at: number; readonly chroma: number }>();
  const L = (at: number): number => table.lab[3 * at]!;
  for (let at = 0; at < table.count; at++) {
    if (!isOf(table, at, without)) continue;
    const C = Math.hypot(table.lab[3 * at + 1]!, table.lab[3 * at + 2]!);
    if (darkest < 0 || L(at) < L(darkest)) darkest = at;
    if (lightest < 0 || L(at) > L(lightest)) lightest = at;
    if (C <= COLOURLESS && (black < 0 || L(at) < L(black))) black = at;
    const off = C + Math.abs(L(at) - MIDDLE) / 2;
    if (Math.abs(L(at) - MIDDLE) < 6 && C <= 2 * COLOURLESS && off < greyness) [grey, greyness] = [at, off];
    const twelfth = Math.floor((labToLch([L(at), table.lab[3 * at + 1]!, table.lab[3 * at + 2]!])[2] / 360) * TWELFTHS) % TWELFTHS;
    if (C > (strongest.get(twelfth)?.chroma ?? COLOURLESS)) strongest.set(twelfth, { at, chroma: C });
  }
  if (darkest < 0) return undefined;
  const of = (at: number): TableMixture | undefined => (at < 0 ? undefined : mixtureAt(table, at));
  return {
    darkest: mixtureAt(table, darkest),
    lightest: mixtureAt(table, lightest),
    black: of(black),
    grey: of(grey),
    strongest: [...strongest]
      .sort(([one], [other]) => one - other)
      .map(([twelfth, { at, chroma }]) => ({ hue: ((twelfth + 0.5) * 360) / TWELFTHS, chroma, mixture: mixtureAt(table, at) })),
  };
}

/** The chips that lie nearest to a colour, the nearest first. */
export function chipsNear(table: MixtureTable, target: Lab, most: number, without: ReadonlySet<number> = new Set()): TableMixture[] {
  const near: { at: number; d: number }[] = [];
  for (let at = 0; at < table.count; at++) {
    if (!isOf(table, at, without)) continue;
    const d = Math.hypot((table.lab[3 * at]! - target[0]) / 1.3, table.lab[3 * at + 1]! - target[1], table.lab[3 * at + 2]! - target[2]);
    if (near.length < 40 || d < near.at(-1)!.d) {
      near.push({ at, d });
      near.sort((one, other) => one.d - other.d);
      if (near.length > 40) near.pop();
    }
  }
  // No two that look alike.
  const taken: TableMixture[] = [];
  for (const { at } of near) {
    const own = mixtureAt(table, at);
    if (taken.every(({ lab }) => Math.hypot(lab[0] - own.lab[0], lab[1] - own.lab[1], lab[2] - own.lab[2]) > 1.5)) taken.push(own);
    if (taken.length === most) break;
  }
  return taken;
}

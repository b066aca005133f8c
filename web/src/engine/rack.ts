// Jobs on tubes: what they make, what they come to of a picture, which are alike, what swatches tell.
import {
  alikeAmong,
  bestFew,
  chipsAtValue,
  chipsNear,
  chipsOfFamily,
  coloursOfPicture,
  coverByCell,
  coverOf,
  earnings,
  endsOf,
  layKey,
  looksSwapped,
  mixturesOf,
  NEARLY,
  oneMore,
  readyMadeAmong,
  taughtBy,
  type Alike,
  type ChipFamily,
  type Choosable,
  type Comparable,
  type Cover,
  type Earning,
  type Few,
  type FewWish,
  type FittedTube,
  type InSteps,
  type Lab,
  type MixtureTable,
  type PaintCurves,
  type PaletteEnds,
  type ReadyMade,
  type SwatchReading,
  type TableMixture,
  type WeightedColour,
} from '@dusk/core';
import { pictureOf, type ReachNeeds } from './pictures.ts';

/** A tube as these jobs take it; `state` tells whether its curves are known already. */
export interface RackTube extends Choosable {
  readonly state: string;
}

/** What is looked at of what tubes make. */
export type MadeShow = { readonly value: number } | { readonly family: ChipFamily };
export interface MadeNeeds {
  readonly tubes: readonly RackTube[];
  readonly show: MadeShow;
  /** Tubes that are taken away for now. */
  readonly without: readonly string[];
  /** A colour that is sought among them. */
  readonly near?: Lab;
}
/** A mixture by the tubes in it. */
export interface Made {
  readonly lab: Lab;
  readonly parts: readonly { readonly id: string; readonly parts: number }[];
}
export interface MadeChip extends Made {
  readonly column: number;
  readonly row: number;
}
export interface MadeSheet {
  readonly columns: number;
  readonly rows: number;
  readonly steps: readonly number[];
  readonly by: 'strength' | 'value';
  readonly chips: readonly MadeChip[];
  readonly near: readonly Made[];
  readonly ends:
    | ({
        readonly [E in 'darkest' | 'lightest']: Made;
      } & { readonly black?: Made; readonly grey?: Made; readonly strongest: readonly (Made & { readonly hue: number })[] })
    | undefined;
}

/** Tables of what tubes make, of the newest few palettes. */
const tables = new Map<string, MixtureTable>();
const TABLES_KEPT = 4;
function tableOf(tubes: readonly RackTube[]): MixtureTable {
  const key = tubes.map(({ id, state }) => `${id} ${state}`).join();
  const found = tables.get(key) ?? mixturesOf(tubes);
  tables.delete(key);
  tables.set(key, found);
  for (const old of [...tables.keys()].slice(0, -TABLES_KEPT)) tables.delete(old);
  return found;
}

export function makeChips({ tubes, show, without, near }: MadeNeeds): MadeSheet {
  const table = tableOf(tubes);
  const gone = new Set(tubes.flatMap(({ id }, i) => (without.includes(id) ? [i] : [])));
  const made = ({ lab, tubes: of, parts }: TableMixture): Made => ({
    lab,
    parts: of.map((t, k) => ({ id: tubes[t]!.id, parts: parts[k]! })),
  });
  const sheet = 'value' in show ? chipsAtValue(table, show.value, gone) : chipsOfFamily(table, show.family, gone);
  const ends: PaletteEnds | undefined = endsOf(table, gone);
  return {
    ...sheet,
    chips: sheet.chips.map((chip) => ({ ...made(chip), column: chip.column, row: chip.row })),
    near: near ? chipsNear(table, near, NEAREST_SHOWN, gone).map(made) : [],
    ends: ends && {
      darkest: made(ends.darkest),
      lightest: made(ends.lightest),
      ...(ends.black && { black: made(ends.black) }),
      ...(ends.grey && { grey: made(ends.grey) }),
      strongest: ends.strongest.map(({ hue, mixture }) => ({ ...made(mixture), hue })),
    },
  };
}
const NEAREST_SHOWN = 8;

/** A picture as it is to be painted, and tubes. */
export interface CoverNeeds extends ReachNeeds {
  readonly tubes: readonly RackTube[];
}
export interface Covered {
  readonly cover: Cover;
  /** The largest of what is neither matched nor near, and how far off the nearest is. */
  readonly lost: readonly (WeightedColour & { readonly nearest: Lab; readonly deltaE00: number })[];
  /** By the pixel's first 6 bits of each channel: 0 matched, 1 near, 2 neither. */
  readonly table: Uint8Array;
}
const LOST_SHOWN = 5;

let colours: { readonly key: string; readonly list: readonly WeightedColour[] } | undefined;
function coloursFor({ pictureId, gains, key }: ReachNeeds): readonly WeightedColour[] {
  const name = JSON.stringify([pictureId, gains, key]);
  if (colours?.key !== name)
    colours = { key: name, list: coloursOfPicture(pictureOf(pictureId), gains, key && layKey(key.plan, key.ends)) };
  return colours.list;
}

export function coverPicture({ tubes, ...picture }: CoverNeeds): Covered {
  const list = coloursFor(picture);
  const { cover, nearest } = coverOf(tubes, list, tableOf(tubes));
  const lost = list
    .map((one, i) => ({ ...one, nearest: nearest[i]!.lab, deltaE00: nearest[i]!.distance }))
    .filter(({ deltaE00 }) => deltaE00 > NEARLY)
    .sort((one, other) => other.weight - one.weight)
    .slice(0, LOST_SHOWN);
  const table = coverByCell(
    pictureOf(picture.pictureId),
    list,
    nearest.map(({ distance }) => distance),
    picture.gains,
    picture.key && layKey(picture.key.plan, picture.key.ends),
  );
  return { cover, lost, table };
}

/** How near tubes come to some colours. */
export interface NearNeeds {
  readonly tubes: readonly RackTube[];
  readonly targets: readonly Lab[];
}
export function nearTo({ tubes, targets }: NearNeeds): readonly { readonly lab: Lab; readonly deltaE00: number }[] {
  const { nearest } = coverOf(
    tubes,
    targets.map((lab) => ({ lab, weight: 1 })),
    tableOf(tubes),
  );
  return nearest.map(({ lab, distance }) => ({ lab, deltaE00: distance }));
}

export interface EarnNeeds extends CoverNeeds {
  readonly rack: readonly RackTube[];
  /** Tubes of which it is not asked, as the white. */
  readonly kept: readonly string[];
}
export interface Earned {
  readonly each: readonly Earning[];
  readonly more: readonly Earning[];
}
export function* earn({ tubes, rack, kept, ...picture }: EarnNeeds): InSteps<Earned> {
  const list = coloursFor(picture);
  yield 0.05;
  const each = earnings(tubes, list, kept);
  yield 0.2;
  return { each, more: yield* oneMore(tubes, rack, list) };
}

export interface FewNeeds extends CoverNeeds {
  readonly wish: FewWish;
}
export function* few({ tubes, wish, ...picture }: FewNeeds): InSteps<Few> {
  return yield* bestFew(tubes, coloursFor(picture), wish);
}

export interface AlikeNeeds {
  readonly tubes: readonly Comparable[];
  readonly white: PaintCurves;
}
export interface AlikeFound {
  readonly alike: readonly Alike[];
  readonly readyMade: readonly ReadyMade[];
}
export function* alike({ tubes, white }: AlikeNeeds): InSteps<AlikeFound> {
  yield 0;
  const found = alikeAmong(tubes, white);
  yield 0.1;
  return { alike: found, readyMade: yield* readyMadeAmong(tubes, white) };
}

export interface FitNeeds {
  readonly from: PaintCurves;
  readonly white: PaintCurves;
  readonly readings: readonly SwatchReading[];
}
export interface Fitted extends FittedTube {
  /** Swatches that look exchanged. */
  readonly swapped: readonly [number, number] | null;
}
export const fit = ({ from, white, readings }: FitNeeds): Fitted => ({
  ...taughtBy(from, white, readings),
  swapped: looksSwapped(from, white, readings) ?? null,
});

import { mixingPath, paintOfSource, MOST_TRIED, inMixingOrder, type Lab, type Measure, type Mixture, type Told } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { stepsOf, type Known } from '../recipe/steps.ts';

/** What to measure, as it is read from two metres. */
export interface EaselLine {
  readonly name: string;
  readonly parts: string;
  readonly amount: string;
}

/** One step at the easel. */
export interface EaselPage {
  readonly pile: PileDto;
  readonly title: string;
  readonly lines: readonly EaselLine[];
  /** What the heap looks like then. */
  readonly chip: Lab;
  /** What is ticked: a heap that is mixed first, or an ingredient, which may take several pages. */
  readonly step: number;
  readonly isLast: boolean;
}

/** Strong ones are crept up with: half of them, then quarters. */
const PORTIONS = { half: 'half', quarter: 'a quarter' } as const;
/** What stands beside an amount: its word, or beside that the parts. */
const beside = (told: Told, measure: Measure): string => (measure === 'eye' ? '' : told.eye === told[measure] ? '' : told.eye);

/** Steps of a pile: heaps that are mixed first, then one addition after another, the strong one crept up with. */
export function pagesOf(pile: PileDto, known: Known & { readonly measure: Measure }): EaselPage[] {
  const heaps = stepsOf(pile.plan, pile.ml, known);
  const { measure } = known;
  const own = heaps.at(-1)!;
  const first = heaps.slice(0, -1).map((heap) => ({
    title: `First, ${heap.name}`,
    step: heaps.indexOf(heap),
    lines: heap.steps.map(({ name, told }) => ({ name, parts: told[measure], amount: beside(told, measure) })),
    chip: heap.colour,
  }));
  const path = crept(pile.plan, known);
  const pages = [
    ...first,
    ...path.map(({ at, share, lab }, i) => {
      const { name, told } = own.steps[at]!;
      const title = i === 0 ? 'Lay out' : share === 1 ? 'Add' : path[i - 1]!.at === at ? 'Then, if it wants more' : 'Add a little';
      return {
        title,
        step: first.length + at,
        lines: [
          {
            name,
            parts: share === 1 ? told[measure] : PORTIONS[share === 0.5 ? 'half' : 'quarter'],
            amount: share === 1 ? beside(told, measure) : `of ${told[measure]}`,
          },
        ],
        chip: lab,
      };
    }),
  ];
  return pages.map((page, i) => ({ ...page, pile, isLast: i === pages.length - 1 }));
}

/** The last heap's additions in order, with the share of its ingredient that each is. */
function crept(mixture: Mixture, { paintOf }: Known): readonly { readonly at: number; readonly share: number; readonly lab: Lab }[] {
  const ordered = inMixingOrder(mixture, paintOf);
  const { ingredients } = ordered.heaps.at(-1)!;
  const portions = ingredients.map((ingredient, i) => ({
    id: String(i),
    paint: paintOfSource(ordered, ingredient, paintOf),
    parts: ingredient.parts,
  }));
  const most = Math.min(MOST_TRIED, portions.length);
  // More ingredients than orders are tried for are added as they stand.
  if (portions.length > most)
    return portions.map((_, at) => ({ at, share: 1, lab: mixingPath(portions.slice(0, most)).steps.at(-1)!.lab }));
  return mixingPath(portions).steps.map(({ add, lab }) => ({
    at: Number(add.id),
    share: add.parts / ingredients[Number(add.id)]!.parts,
    lab,
  }));
}

/** A step as it is read aloud. */
export const spoken = ({ title, lines }: EaselPage): string =>
  `${title}: ${lines.map(({ parts, name }) => `${sayParts(parts)} ${name}`).join(', ')}.`;
const FRACTIONS: Readonly<Record<string, string>> = {
  '⅛': 'an eighth',
  '⅙': 'a sixth',
  '¼': 'a quarter',
  '⅓': 'a third',
  '½': 'a half',
  '⅔': 'two thirds',
  '¾': 'three quarters',
};
function sayParts(parts: string): string {
  const fraction = FRACTIONS[parts.at(-1) ?? ''];
  if (!fraction) return `${parts} ${parts === '1' ? 'part' : 'parts'}`;
  const whole = parts.slice(0, -1);
  return whole ? `${whole} and ${fraction} parts` : `${fraction} of a part`;
}

import {
  likeness,
  colourName,
  labToMunsell,
  relativeTemperature,
  relativeTemperatureWord,
  stepsOfCard,
  temperature,
  temperatureWord,
  valueOfLightness,
  writeMunsell,
  writeValue,
  type Basis,
  type Card,
  type HeapSteps,
  type Lab,
  type Measure,
  type ValueScale,
  type WarmBlue,
} from '@dusk/core';

/** A mixture as it stands on a sheet, whatever it came from. */
export interface SheetMixture {
  readonly name: string;
  /** What it is read as: a real dab, how it looked, or what it is reckoned to be. */
  readonly lab: Lab;
  readonly target?: Lab | undefined;
  readonly predicted: Lab;
  readonly seen?: Lab | undefined;
  readonly ml: number;
  readonly heaps: readonly HeapSteps[];
  /** Where it belongs and whence it is, in a line each; empty lines are left out. */
  readonly said: readonly string[];
  readonly note: string;
  readonly sure: string;
}

/** How this studio says values and temperatures. */
export interface Saying {
  readonly scale: ValueScale;
  readonly warmBlue: WarmBlue;
  /** The way of measuring in which amounts are told. */
  readonly measure: Measure;
}

export const valueOn = (lab: Lab, { scale }: Saying): string => writeValue(valueOfLightness(Math.max(0, lab[0])), scale);

/** `fairly warm, khaki, 7.5YR 5/4`. */
export const inWords = (lab: Lab, { warmBlue }: Saying): string =>
  `${temperatureWord(temperature(lab, warmBlue))}, ${colourName(lab)}, ${writeMunsell(labToMunsell(lab))}`;

/** How what was seen differs from what was reckoned, value first. */
export function apart(seen: Lab, predicted: Lab, saying: Saying): string {
  const value = valueOfLightness(Math.max(0, seen[0])) - valueOfLightness(Math.max(0, predicted[0]));
  const how = Math.abs(value) < 0.05 ? 'the same value' : `${Math.abs(value).toFixed(1)} ${value > 0 ? 'lighter' : 'darker'}`;
  return `${how}, ${relativeTemperatureWord(relativeTemperature(seen, predicted, saying.warmBlue))}`;
}

const SURE: Readonly<Record<Basis, string>> = {
  typical: 'reckoned from typical tubes',
  learnt: 'reckoned from tubes as piles have taught them',
  fitted: 'reckoned from fitted tubes',
  measured: 'reckoned from measured tubes',
};
export const sureOf = (basis: Basis): string => SURE[basis];

/** `4 May 2026`, by the calendar of a zone. */
export const dayOf = (at: string, zone = 'UTC'): string =>
  new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: zone });

/** @param ml how much is to be mixed; as much as the card says where nobody does */
export function ofCard(card: Card, ml = card.ml): SheetMixture {
  const { dab, seen, predicted, target, name, note } = card;
  return {
    name,
    lab: dab?.lab ?? seen ?? predicted,
    target,
    predicted,
    seen: dab?.lab ?? seen,
    ml,
    heaps: stepsOfCard(card, ml),
    said: [
      [card.thing, card.zone].filter(Boolean).join(', '),
      [card.painting, dayOf(card.madeAt)].filter(Boolean).join(', '),
      [card.light && `looked at by ${card.light}`, card.film === 'full' ? '' : card.film, card.medium].filter(Boolean).join(', '),
    ],
    note,
    sure: sureOf(card.basis) + (card.within > 0 ? `, nine of ten piles come out ${likeness(card.within)}` : ''),
  };
}

/** Everything a mixture takes from its tubes, squeezed: by name, ml and mm of bead. */
export interface Squeezed {
  readonly name: string;
  readonly nozzleMm: number;
  readonly colour: Lab;
  readonly caution: string;
  ml: number;
  mm: number;
}

/** All that is squeezed for several mixtures, tube by tube, what there is most of first; heaps and piles are no tubes. */
export function squeezedFor(mixtures: readonly SheetMixture[]): Squeezed[] {
  const tubes = new Map<string, Squeezed>();
  const steps = mixtures.flatMap(({ heaps }) => heaps.flatMap((heap) => heap.steps));
  for (const step of steps.filter(({ from }) => from === 'tube')) {
    const key = `${step.name} ${step.nozzleMm}`;
    const known = tubes.get(key) ?? {
      name: step.name,
      nozzleMm: step.nozzleMm,
      colour: step.paint,
      caution: step.caution,
      ml: 0,
      mm: 0,
    };
    known.ml += step.ml;
    known.mm += step.beadMm;
    tubes.set(key, known);
  }
  return [...tubes.values()].sort((one, other) => other.ml - one.ml);
}

/** What to be careful about, in a sentence for each thing; empty where there is nothing. */
export function cautionsOf(steps: readonly { readonly name: string; readonly caution: string }[], short = false): string[] {
  const by = new Map<string, Set<string>>();
  for (const { name, caution } of steps) if (caution !== 'none') by.set(caution, (by.get(caution) ?? new Set()).add(name));
  return [...by].map(([caution, names]) => {
    const tubes = [...names].join(', ');
    if (short && caution !== 'fugitive') return `${tubes}: ${caution}; see the label and the safety data sheet.`;
    return caution === 'fugitive'
      ? `${tubes}: fades in light.`
      : `${tubes}: ${caution}. No eating or smoking, no sanding of dry paint, no spraying; see the label and the safety data sheet.`;
  });
}

/** Said wherever oil paint is planned for a day. */
export const RAGS =
  'Oily rags can ignite by themselves: dry them flat outdoors, or keep them in a lidded metal can with water. Paint and solvent waste goes by local rules.';

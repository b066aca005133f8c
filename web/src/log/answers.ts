// What an area answers, in words that are read at a glance.
import type { Felt, MayPaint } from '@dusk/core';

/** How sure a yes is: by weight and by a mark, not by hue. */
export type Mark = 'yes' | 'touch' | 'no';
export interface Answer {
  readonly word: string;
  readonly mark: Mark;
  readonly means: string;
}

const ANSWERS: Readonly<Record<MayPaint['stands'], Answer>> = {
  bare: { word: 'yes', mark: 'yes', means: 'Nothing lies there yet.' },
  'dry through': { word: 'yes', mark: 'yes', means: 'Dry through.' },
  dry: { word: 'yes', mark: 'yes', means: 'Dry to the touch.' },
  'perhaps dry': { word: 'touch it first', mark: 'touch', means: 'Most likely dry: a finger tells.' },
  tacky: { word: 'not yet', mark: 'no', means: 'It drags: wait, step over it with loaded paint, or oil out and go on.' },
  wet: { word: 'wet', mark: 'no', means: 'Wet: work into it, or wait.' },
};
export const answerOf = ({ stands }: MayPaint): Answer => ANSWERS[stands];

/** What a finger says, and what it is called on a key. */
export const FEELS: readonly { readonly felt: Felt; readonly says: string }[] = [
  { felt: 'wet', says: 'wet' },
  { felt: 'tacky', says: 'tacky' },
  { felt: 'dry', says: 'dry' },
  { felt: 'dry through', says: 'through' },
  { felt: 'sunk', says: 'sunk' },
];

/** What was done with an area, as it stands in the log. */
export const DONE = {
  laid: 'laid',
  'wiped back': 'wiped back',
  lifted: 'lifted',
  'scraped back': 'scraped back',
  'oiled out': 'oiled out',
  touched: 'felt',
} as const;

import { differenceWords, valueOfLightness, type Lab, type Sight, mlText } from '@dusk/core';
import type { AdditionDto, PileDto, StageDto } from '@dusk/wire';
import { labOfDto } from '@dusk/wire/written';
import { moment } from '../floor/words.ts';
import type { Tube } from '../stores/tubes.ts';

/** A piece of a pile's story as one chip. */
export interface Chapter {
  readonly what: 'wanted' | 'mixed' | 'got' | 'added' | 'changed' | 'left' | 'scraped';
  readonly lab: Lab;
  readonly at?: string;
}

/** Wanted, mixed, got, added, got: each with its chip. */
export function chaptersOf(pile: PileDto): Chapter[] {
  const chapters: Chapter[] = pile.target ? [{ what: 'wanted', lab: labOfDto(pile.target.lab) }] : [];
  let last = labOfDto(pile.predicted.lab);
  for (const { kind, predicted, looks, at } of pile.stages) {
    last = predicted ? labOfDto(predicted) : last;
    if (kind !== 'left') chapters.push({ what: kind, lab: last, at });
    for (const look of looks) {
      last = labOfDto(look.lab);
      chapters.push({ what: 'got', lab: last, at: look.at });
    }
  }
  return chapters;
}

const BY: Readonly<Record<Sight, string>> = {
  words: 'in words',
  eye: 'by eye',
  photo: 'from a photo',
  typed: 'as typed',
  reader: 'by the reader',
};

/** What is needed to name what went into a pile. */
export interface Names {
  readonly tubes: ReadonlyMap<string, Tube>;
  /** Of the pile that a stage belongs to. */
  readonly pileOfStage: (stageId: string) => string;
  readonly valueText: (value: number) => string;
}

function additionWords({ tubeId, stageId, ml, low, high, said }: AdditionDto, { tubes, pileOfStage }: Names): string {
  const name = tubeId === null ? `“${pileOfStage(stageId!)}”` : (tubes.get(tubeId)?.name ?? 'a tube').toLowerCase();
  if (said) return `${said} ${name}`;
  return `${high > low * 1.01 ? 'about ' : ''}${mlText(ml)} ${name}`;
}

function stageWords(stage: StageDto, names: Names): string {
  const what = stage.additions.map((a) => additionWords(a, names)).join(', ');
  switch (stage.kind) {
    case 'mixed':
      return `mixed from ${what}`;
    case 'added':
      return `added ${what}`;
    case 'changed':
      return 'changed by eye';
    case 'left':
      return `${mlText(stage.left!)} of it taken, the rest set aside`;
    case 'scraped':
      return 'wiped off';
  }
}

/** The history of a pile, a sentence a line, oldest first. */
export function historyOf(pile: PileDto, names: Names): { readonly at: string; readonly text: string }[] {
  const target = pile.target && labOfDto(pile.target.lab);
  const lines = [{ at: pile.createdAt, text: target ? `meant to be value ${names.valueText(valueOfLightness(target[0]))}` : 'begun' }];
  for (const stage of pile.stages) {
    lines.push({ at: stage.at, text: stageWords(stage, names) });
    for (const { at, lab, kind, said, refused } of stage.looks) {
      const seen = labOfDto(lab);
      const differs = target ? differenceWords(seen, target) : [];
      const value = `value ${names.valueText(valueOfLightness(seen[0]))}`;
      const off = target ? (differs.length > 0 ? `, ${differs.join(', ')} than wanted` : ', as wanted') : '';
      lines.push({ at, text: `looked ${value} ${BY[kind]}${off}${said ? ` (“${said}”)` : ''}${refused ? '; not learnt from' : ''}` });
    }
  }
  return lines.map(({ at, text }) => ({ at: moment(at), text }));
}

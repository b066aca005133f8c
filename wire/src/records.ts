import { leavesOf, type Mixture, type StageRecord } from '@dusk/core';
import { labOfDto } from './written.ts';
import type { AreaDto } from './areas.ts';
import type { PileDto } from './piles.ts';
import type { AdditionDto } from './stages.ts';

const additionOf = ({ tubeId, stateId, stageId, ml, low, high }: AdditionDto): StageRecord['additions'][number] => ({
  source: tubeId === null ? { stage: stageId! } : { tube: tubeId, state: stateId! },
  ml,
  low,
  high,
});

/** What was done with piles, and with areas, which take paint from them as piles do, as the engine goes through it. */
export const recordsOf = (piles: readonly PileDto[], areas: readonly AreaDto[] = []): StageRecord[] => [
  ...piles.flatMap((pile) =>
    pile.stages.map((stage): StageRecord => {
      const look = stage.looks.at(-1);
      return {
        id: stage.id,
        n: stage.n,
        pile: pile.id,
        kind: stage.kind,
        ...(stage.left !== null && { left: stage.left }),
        additions: stage.additions.map(additionOf),
        ...(look && { seen: labOfDto(look.lab), sight: look.kind, sightingId: look.sightingId, lookId: look.id }),
      };
    }),
  ),
  ...areas.flatMap((area) =>
    area.deeds.map(({ id, n, additions }): StageRecord => ({ id, n, pile: area.id, kind: 'added', additions: additions.map(additionOf) })),
  ),
];

/** States that piles speak of, in their plans and in what went into them. */
export const statesSpokenOf = (piles: readonly PileDto[]): string[] => [
  ...new Set(
    piles.flatMap(({ plan, stages }) => [
      ...leavesOf(plan as Mixture).flatMap(({ source }) => ('tube' in source ? (source.state ?? []) : [])),
      ...stages.flatMap(({ additions }) => additions.flatMap(({ stateId }) => stateId ?? [])),
    ]),
  ),
];

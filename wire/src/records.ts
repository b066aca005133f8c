import type { StageRecord } from '@dusk/core';
import { labOfDto } from './written.ts';
import type { PileDto } from './piles.ts';

/** What was done with piles, as the engine goes through it. */
export const recordsOf = (piles: readonly PileDto[]): StageRecord[] =>
  piles.flatMap((pile) =>
    pile.stages.map((stage): StageRecord => {
      const look = stage.looks.at(-1);
      return {
        id: stage.id,
        n: stage.n,
        pile: pile.id,
        kind: stage.kind,
        ...(stage.left !== null && { left: stage.left }),
        additions: stage.additions.map(({ tubeId, stateId, stageId, ml, low, high }) => ({
          source: tubeId === null ? { stage: stageId! } : { tube: tubeId, state: stateId! },
          ml,
          low,
          high,
        })),
        ...(look && { seen: labOfDto(look.lab), sight: look.kind, sightingId: look.sightingId, lookId: look.id }),
      };
    }),
  );

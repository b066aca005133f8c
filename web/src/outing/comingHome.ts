import type { Measure, OutingNews, OutingReturn } from '@dusk/core';
import type { Operation, PileDto } from '@dusk/wire';
import { labDto } from '@dusk/wire/written';
import { mixAsPlanned } from '../recipe/deeds.ts';
import { clock } from '../floor/words.ts';
import type { Tube } from '../stores/tubes.ts';

/** What one pile brings home, in words, and what it takes to keep that. */
export interface HomeNews {
  readonly pileId: string;
  readonly name: string;
  readonly says: readonly string[];
  readonly ops: readonly Operation[];
  /** Steps that were ticked of a pile that is not mixed yet. */
  readonly ticked: readonly number[];
}

/** The operations that mix a pile as planned, its own stage under the id it was given out there. */
function mixedOutThere(
  pile: PileDto,
  news: OutingNews,
  measure: Measure,
  tubes: ReadonlyMap<string, Tube>,
  piles: ReadonlyMap<string, PileDto>,
  fresh: Map<string, string>,
): Operation[] {
  const ops = mixAsPlanned(pile, measure, tubes, piles, fresh);
  const own = fresh.get(pile.id)!;
  fresh.set(pile.id, news.stageId);
  return ops.map((op): Operation => (op.do === 'stage.add' ? { ...op, at: news.mixedAt!, id: op.id === own ? news.stageId : op.id } : op));
}

/** Out there every line has a tick; here a heap that is mixed first has one for all of it. */
function ticksHere({ plan }: PileDto, ticked: readonly number[]): number[] {
  let from = 0;
  const ticks: number[] = [];
  plan.heaps.forEach(({ ingredients }, at) => {
    const lines = ingredients.map((_, i) => from + i);
    from += lines.length;
    const isLast = at === plan.heaps.length - 1;
    if (isLast) ticks.push(...lines.flatMap((line, i) => (ticked.includes(line) ? [at + i] : [])));
    else if (lines.every((line) => ticked.includes(line))) ticks.push(at);
  });
  return ticks;
}

/**
 * What came home meets the piles as they are: what is here already, by the ids it was given out there,
 * is left alone; a pile that is gone is told.
 */
export function meetHome(
  { news }: OutingReturn,
  measure: Measure,
  tubes: ReadonlyMap<string, Tube>,
  piles: ReadonlyMap<string, PileDto>,
): HomeNews[] {
  const fresh = new Map<string, string>();
  return news.map((one): HomeNews => {
    const pile = piles.get(one.pileId);
    if (!pile)
      return { pileId: one.pileId, name: 'A pile that is gone', says: ['was put away meanwhile: nothing is taken'], ops: [], ticked: [] };
    const says: string[] = [];
    const ops: Operation[] = [];
    const isKnown = pile.stages.some(({ id }) => id === one.stageId);
    if (one.mixedAt && !isKnown) {
      if (pile.stages.length > 0) says.push('is mixed here already: its mixing out there is left alone');
      else if (fresh.has(pile.id)) says.push('mixed for another');
      else {
        ops.push(...mixedOutThere(pile, one, measure, tubes, piles, fresh));
        says.push(`mixed as planned at ${clock(one.mixedAt)}`);
      }
    }
    const stageId = fresh.get(pile.id) ?? pile.stages.at(-1)?.id;
    const hasLook = pile.stages.some(({ looks }) => looks.some(({ id }) => id === one.lookId));
    if (one.look && stageId && !hasLook) {
      const { lab, said, at } = one.look;
      const [L, a, b] = lab;
      ops.push(
        { do: 'sighting.add', id: one.sightingId, kind: 'words', at },
        {
          do: 'look.add',
          id: one.lookId,
          sightingId: one.sightingId,
          stageId,
          lab: labDto([Math.min(100, Math.max(0, L)), a, b]),
          at,
          ...(said && { said }),
        },
      );
      says.push(`looked ${said || 'at'}`);
    }
    if (one.note.trim() && !pile.note.includes(one.note.trim())) {
      const note = [pile.note, one.note.trim()].filter(Boolean).join('\n').slice(0, 2000);
      ops.push({ do: 'pile.change', id: pile.id, version: pile.version, note });
      says.push(`a note: ${one.note.trim()}`);
    }
    const ticked = one.mixedAt || pile.stages.length > 0 ? [] : ticksHere(pile, one.ticked);
    if (ticked.length > 0) says.push(`${ticked.length} ${ticked.length === 1 ? 'step' : 'steps'} done`);
    return { pileId: pile.id, name: pile.name, says, ops, ticked };
  });
}

import { howLaid, laidInWords, valueOfLightness, WITH_SAYS } from '@dusk/core';
import type { PaintingDto, PileDto } from '@dusk/wire';
import { In, type EntityManager } from 'typeorm';
import { Pile, Tube } from '../entities/index.ts';

/** How a pile is laid, as it stands on cards and sheets: over what, and with what; empty where nothing is said. */
export interface LaidLines {
  readonly film: string;
  readonly medium: string;
  /** What is due where that goes in. */
  readonly caution: string;
}

/** Piles told how they are laid, by their id. */
export async function laidLines(
  db: EntityManager,
  piles: readonly Pick<PileDto, 'id' | 'purpose' | 'target' | 'predicted'>[],
  painting: Pick<PaintingDto, 'habit' | 'groundOf'> | null,
): Promise<ReadonlyMap<string, LaidLines>> {
  const named = piles.flatMap(({ purpose: { overId, laid } }) => [overId, laid?.brushId].filter((id) => id !== undefined));
  const names = new Map((named.length > 0 ? await db.findBy(Pile, { id: In(named) }) : []).map(({ id, name }) => [id, name]));
  const groundOf = painting?.groundOf;
  const tube = groundOf ? await db.findOneBy(Tube, { id: groundOf.tubeId }) : null;
  const ground = tube && groundOf ? `a ground of ${tube.name}, ${groundOf.wiped}` : 'the ground';
  const lines = ({ purpose: { laid = {}, overId }, target, predicted }: (typeof piles)[number]): LaidLines => {
    const value = valueOfLightness(Math.max(0, (target?.lab ?? predicted.lab).L));
    const how = howLaid(laid.how, painting?.habit, value);
    const { called, caution } = WITH_SAYS[laid.with ?? 'nothing'];
    const medium = caution === '' ? '' : called;
    if (!how) return { film: '', medium, caution };
    const isWet = overId !== undefined && laid.over === 'wet';
    const over = overId === undefined ? ground : (names.get(overId) ?? 'another pile');
    const inBrush = laid.brushId === undefined ? undefined : (names.get(laid.brushId) ?? 'another pile');
    return { film: laidInWords({ how, takes: laid.takes, layers: laid.layers }, { over, isWet, inBrush }), medium, caution };
  };
  return new Map(piles.map((pile) => [pile.id, lines(pile)]));
}

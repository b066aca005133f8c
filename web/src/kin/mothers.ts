import { withPileOpened, type Lab, type Mixture } from '@dusk/core';
import type { Operation, PileDto } from '@dusk/wire';
import { labDto, labOfDto, mixtureSent } from '@dusk/wire/written';
import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { engine } from '../engine/engine.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useNotices } from '../floor/notices.ts';
import { coloursWith, plannedBelow, type ChildrenMay } from './kin.ts';
import { usePiles } from '../stores/piles.ts';

/** A change of a plan that others are planned from: what is to become of them is asked first. */
interface Asked {
  readonly pile: PileDto;
  readonly plan: Mixture;
  readonly target: Lab | undefined;
  readonly says: string;
  readonly children: readonly PileDto[];
}

/** Changes plans, and sees to the piles that are planned from them. */
export const useMothers = defineStore('mothers', () => {
  const piles = usePiles();
  const desk = useDesk();
  const notices = useNotices();
  const asked = shallowRef<Asked>();

  const changeOf = (pile: PileDto, plan: Mixture, target?: Lab): Operation => ({
    do: 'pile.change',
    id: pile.id,
    version: pile.version,
    plan: mixtureSent(plan),
    ...(target && { target: { kind: 'absolute', lab: labDto(target) } }),
  });

  /** Changes a plan; where others rest on it, once it is said what becomes of them. */
  async function change(pile: PileDto, plan: Mixture, says: string, target?: Lab): Promise<boolean> {
    const children = piles.childrenOf(pile.id).filter((child) => child.stages.length === 0);
    if (children.length === 0) return piles.make([changeOf(pile, plan, target)], says);
    asked.value = { pile, plan, target, says, children };
    return false;
  }

  /** The plan of a child that keeps its colour though its mother is another. */
  async function holding(child: PileDto, mother: PileDto, plan: Mixture): Promise<Mixture> {
    const look = coloursWith(new Map([[mother.id, plan]]), (source) => desk.paintOf(source).paint);
    const { paint } = look(plan);
    const laid = await engine().lay(
      { tubes: desk.desk!.laid.tubes, piles: [{ id: mother.id, K: paint.K, S: paint.S, flat: desk.flatOfPile(mother.id) }] },
      { prepared: false },
    );
    try {
      const target = labOfDto(child.target?.lab ?? child.predicted.lab);
      const { proposals } = await engine().ask('solve', { target, wishes: { mustUse: mother.id } }, { desk: laid });
      return proposals[0]!.mixture;
    } finally {
      engine().clear(laid);
    }
  }

  /** Goes on with what was asked. */
  async function answer(how: ChildrenMay): Promise<boolean> {
    const now = asked.value;
    if (!now) return false;
    const { pile, plan, target, says, children } = now;
    asked.value = undefined;
    const direct = new Set(children.map(({ id }) => id));
    const plans = new Map<string, Mixture>([[pile.id, plan]]);
    const done = await notices.attempt(async () => {
      for (const child of children) {
        const news =
          how === 'stand' ? withPileOpened(child.plan, pile.id, pile.plan) : how === 'hold' ? await holding(child, pile, plan) : child.plan;
        plans.set(child.id, news);
      }
      const look = coloursWith(plans, (source) => desk.paintOf(source).paint);
      const ops = plannedBelow(pile, piles).flatMap((below): Operation[] => {
        const own = plans.get(below.id) ?? below.plan;
        // What follows is meant to be what it then becomes.
        return how === 'stand' && !direct.has(below.id)
          ? []
          : [changeOf(below, own, how === 'follow' && below.target ? look(own).lab : undefined)];
      });
      return piles.make([changeOf(pile, plan, target), ...ops], says);
    });
    return done ?? false;
  }

  const leave = (): void => void (asked.value = undefined);
  return { asked, change, answer, leave };
});

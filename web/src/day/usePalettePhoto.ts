import { CraftError, nudged, type Lab, type PaintFound, type PaletteScene } from '@dusk/core';
import type { Operation } from '@dusk/wire';
import { labDto, mixtureDto, mixtureSent } from '@dusk/wire/written';
import { computed, ref, shallowRef } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import type { PaletteSeen } from '../engine/photos.ts';
import { newId } from '../floor/ids.ts';
import { firstName } from '../floor/words.ts';
import { useWhite } from '../floor/white.ts';
import { mixAsPlanned } from '../recipe/deeds.ts';
import { useLanding } from '../stores/landing.ts';
import { usePaintings } from '../stores/paintings.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useSettings } from '../stores/settings.ts';
import { useTubes } from '../stores/tubes.ts';

/** The sitting recorded by one photo of the palette: each pile that is found has been mixed, and looks as it looks there. */
export function usePalettePhoto() {
  const piles = usePiles();
  const paintings = usePaintings();
  const landing = useLanding();
  const tubes = useTubes();
  const desk = useDesk();
  const settings = useSettings();
  const white = useWhite();
  const seen = shallowRef<PaletteSeen>();
  const failure = ref('');
  const busy = ref(false);

  /** What may lie on the palette: this layer's piles that are not used up or wiped off. */
  const laid = computed(() =>
    piles.list.filter(({ layer, stages, there }) => layer === (paintings.onEasel?.layer ?? 1) && (stages.length === 0 || there > 0)),
  );

  async function see(of: { readonly file: Blob } | { readonly scene: PaletteScene }): Promise<void> {
    failure.value = '';
    seen.value = undefined;
    busy.value = true;
    try {
      const needs = {
        of,
        piles: laid.value.map((pile) => {
          const { K, S } = desk.paintOfPile(pile.id);
          const lab = lookNow(pile);
          return { id: pile.id, lab, wanted: landing.wantedOf(pile) ?? lab, K, S };
        }),
        tubes: desk.paletteTubes.map(({ id, paint: { K, S } }) => ({ id, K, S })),
      };
      seen.value = await unlessGivenUp(engine().ask('palette', needs));
    } catch (cause) {
      failure.value = cause instanceof CraftError ? cause.message : 'This file cannot be read as a picture. Choose a JPEG or PNG.';
    } finally {
      busy.value = false;
    }
  }
  /** What the stand-in camera sees: these piles, each a little off as a hand mixes them. */
  function standIn(): Promise<void> {
    const scene: PaletteScene = {
      piles: laid.value.map((pile, i) => nudged(lookNow(pile), 'value', i % 4 === 3 ? 3 : (i % 3) - 1)),
      surface: [62, 1, 4],
      light: 'window',
      tilt: 0.3,
      glare: 0.4,
      seed: laid.value.length,
    };
    return see({ scene });
  }

  /** A pile that nobody planned: named by its colour, and taken to be made as this palette would make it. */
  async function asPile({ lab }: PaintFound, taken: Set<string>): Promise<Operation[]> {
    if (!desk.desk) return [];
    const ml = settings.settings.amountMl;
    const found = await unlessGivenUp(engine().follow(desk.desk, lab, { dulling: settings.settings.dulling, amountMl: ml }));
    const plan = found?.proposals[0]?.mixture;
    if (!plan) return [];
    const name = firstName(lab, taken);
    taken.add(name);
    const paintingId = paintings.onEasel!.id;
    const id = newId();
    const target = { kind: 'absolute' as const, lab: labDto(lab) };
    return [
      { do: 'pile.add', id, paintingId, name, target, plan: mixtureSent(plan), ml },
      ...mixAsPlanned({ id, paintingId, name, plan: mixtureDto(plan), ml }, settings.settings.measure, tubes.byId, piles.byId),
    ];
  }

  /** Writes all of it down as one change. @returns whether it was */
  async function keep(): Promise<boolean> {
    const found = seen.value;
    if (!found || busy.value) return false;
    busy.value = true;
    try {
      const sightingId = newId();
      const fresh = new Map<string, string>();
      const ops: Operation[] = [{ do: 'sighting.add', id: sightingId, kind: 'photo' }];
      const look = (stageId: string, lab: Lab): Operation => ({ do: 'look.add', id: newId(), sightingId, stageId, lab: labDto(lab) });
      for (const { id, paint } of found.matches) {
        const pile = piles.byId.get(id);
        if (!pile) continue;
        if (pile.stages.length === 0) ops.push(...mixAsPlanned(pile, settings.settings.measure, tubes.byId, piles.byId, fresh));
        ops.push(look(fresh.get(id) ?? pile.stages.at(-1)!.id, paint.lab));
      }
      const names = new Set(piles.names);
      for (const one of found.unknown) {
        const made = await asPile(one, names);
        const mixed = made.findLast((op) => op.do === 'stage.add');
        ops.push(...made);
        if (mixed?.do === 'stage.add') ops.push(look(mixed.id, one.lab));
      }
      return await piles.make(ops, 'Recorded the palette from one photo');
    } finally {
      busy.value = false;
    }
  }
  const clear = (): void => {
    seen.value = undefined;
    failure.value = '';
  };
  return { see, standIn, keep, clear, seen, failure, busy, laid, shown: white.shown };
}

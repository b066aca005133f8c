// What a press on the picture beside the mixing does: opens the pile that serves there, or moves the place that is meant.
import { compareColours, readOutline, type Lab, type Outline } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { labDto, labOfDto, mixtureSent } from '@dusk/wire/written';
import type { Ref } from 'vue';
import { useRouter } from 'vue-router';
import { useNotices } from '../floor/notices.ts';
import { usePaintings } from '../stores/paintings.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useReference } from '../stores/reference.ts';
import { usePoints } from './points.ts';
import { useSamples } from '../stores/samples.ts';
import { useSettings } from '../stores/settings.ts';
import { useLanding } from '../stores/landing.ts';
import { ofValueAlone, useToPaint } from './toPaint.ts';
import type { Place } from './useLiveRecipe.ts';

/** A pile serves where it looks no further from what is seen than a painter lets pass, ΔE00. */
const SERVES_WITHIN = 4;

/**
 * @param open the pile that is worked on
 * @param opens how a pile that was asked for is opened where nothing may be moved, as at the easel
 */
export function useServing(open: Readonly<Ref<PileDto | undefined>>, opens?: (pileId: string) => void) {
  const router = useRouter();
  const reference = useReference();
  const samples = useSamples();
  const piles = usePiles();
  const paintings = usePaintings();
  const settings = useSettings();
  const notices = useNotices();
  const landing = useLanding();
  const toPaint = useToPaint();
  const points = usePoints();

  /** What is seen there and what it is to be painted as. */
  function readAt(outline: Outline): { readonly seen: Lab; readonly paint: Lab } {
    const { lab } = readOutline(reference.pixels!, outline, reference.gains);
    return { seen: lab, paint: toPaint(lab) };
  }

  const openPile = async (pileId: string): Promise<unknown> =>
    opens ? opens(pileId) : router.push({ name: 'mixing', params: { paintingId: paintings.onEasel!.id, pileId } });

  /** The pile of this layer that comes nearest to a colour, where one serves. */
  function nearest(paint: Lab): PileDto | undefined {
    const layer = paintings.onEasel?.layer ?? 1;
    const [best] = piles.ofRank
      .filter((pile) => pile.layer === layer)
      .map((pile) => ({ pile, apart: compareColours(lookNow(pile), paint, settings.settings.warmBlue).deltaE00 }))
      .sort((one, other) => one.apart - other.apart);
    return best && best.apart <= SERVES_WITHIN ? best.pile : undefined;
  }

  /** The pile that is open is meant for another place; what is not mixed yet is planned anew. */
  async function moveTarget(pile: PileDto, outline: Outline): Promise<void> {
    const read = readAt(outline);
    const kind = pile.target?.kind ?? 'absolute';
    const paint = kind === 'value' ? ofValueAlone(read.paint, labOfDto(pile.target!.lab)) : read.paint;
    const isMixed = pile.stages.length > 0;
    const plan = isMixed ? undefined : await landing.recipeFor(pile, paint, landing.landingOf(pile));
    if (!isMixed && !plan) return;
    const says = `“${pile.name}” is for this place now`;
    const mark = samples.marks.find(({ sample }) => sample.id === pile.sampleId);
    if (mark) await samples.readAnew(mark, { outline, seen: read.seen, paint, plan, valueOnly: kind === 'value' }, says);
    else await piles.change(pile.id, { target: { kind, lab: labDto(paint) }, ...(plan && { plan: mixtureSent(plan) }) }, says);
  }

  /** A place was pressed. */
  async function pressed(place: Place): Promise<void> {
    if (!reference.pixels || !reference.reference) return;
    const outline: Outline = { ...place, radius: reference.radius };
    const { paint } = readAt(outline);
    if (open.value && !opens) return moveTarget(open.value, outline);
    const serves = nearest(paint);
    if (serves && serves.id === open.value?.id) return notices.saved('This pile serves there');
    if (serves) {
      notices.saved(`“${serves.name}” serves there`);
      await openPile(serves.id);
      return;
    }
    if (opens) return notices.saved('No pile serves there yet');
    points.value = { ...points.value, [reference.reference.id]: { x: place.x / reference.perOwn, y: place.y / reference.perOwn } };
    await router.push({ name: 'reference', params: { paintingId: paintings.onEasel!.id } });
  }

  /** A mark was pressed: its pile is opened. */
  async function openMark(sampleId: string): Promise<void> {
    const pile = samples.marks.find(({ sample }) => sample.id === sampleId)?.pile;
    if (pile) await openPile(pile.id);
  }

  return { pressed, openMark };
}

// The keys with which a picture is looked at: how large a place, by which look, how it is turned, what stands beside it.
import type { useLooking, Panel } from '../stores/looking.ts';
import type { useReference } from '../stores/reference.ts';
import type { Shortcut } from '../floor/useShortcuts.ts';

const LARGER = 1.25;
const SMALLER = 0.8;

/** @param stepBy one step of the look that is on more, or less */
export function keysOfLooking(
  store: ReturnType<typeof useReference>,
  looking: ReturnType<typeof useLooking>,
  stepBy: (way: 1 | -1) => void,
): Shortcut[] {
  /** Opens what stands beside the picture, or closes it. */
  const opens = (panel: Panel) => (): void => {
    looking.panel = looking.panel === panel ? 'colour' : panel;
  };
  return [
    { key: '+', run: () => store.resize(LARGER), repeats: true },
    { key: '=', run: () => store.resize(LARGER), repeats: true },
    { key: '-', run: () => store.resize(SMALLER), repeats: true },
    { key: 'v', run: () => looking.turn('values') },
    { key: 'w', run: () => looking.turn('warmth') },
    { key: 'c', run: () => looking.turn('strength') },
    { key: 'e', run: () => looking.turn('edges') },
    { key: 'r', run: () => looking.turn('reach') },
    { key: 'm', run: () => looking.turn('piles') },
    { key: 'l', run: opens('plan') },
    { key: 'z', run: opens('canvas') },
    { key: 'j', run: opens('try') },
    { key: 'q', run: opens('propose') },
    { key: '[', run: () => stepBy(-1), repeats: true },
    { key: ']', run: () => stepBy(1), repeats: true },
    { key: 't', run: () => (looking.lost = !looking.lost) },
    { key: 'x', run: () => (looking.mirror = !looking.mirror) },
    { key: 'n', run: () => (looking.grid = !looking.grid) },
    { key: 'i', run: () => (looking.marks = !looking.marks) },
    { key: 'o', run: () => (looking.without = !looking.without) },
    {
      key: 'f',
      run: () =>
        void store.see({ key: store.isKeyed ? undefined : { kind: 'fitted', held: 0.5 } }, store.isKeyed ? 'Key: as it is' : 'Key: fitted'),
    },
    { key: 'p', run: () => store.isKeyed && (looking.asPaint = !looking.asPaint) },
    { key: 'd', run: () => (looking.hand = looking.hand === 'draws' ? 'points' : 'draws') },
    { key: '.', run: () => store.turnTo(1) },
    { key: ',', run: () => store.turnTo(-1) },
    {
      key: 'Escape',
      run: () => {
        looking.hand = 'points';
        if (looking.panel !== 'colour') looking.panel = 'colour';
        else looking.selectedId = undefined;
      },
    },
  ];
}

import { onKeyStroke } from '@vueuse/core';
import { isSheetOpening } from './opening.ts';

/** A key and what it does; none needs two hands. */
export interface Shortcut {
  /** As the browser names it; `mod+z` for Ctrl or ⌘ held. */
  readonly key: string;
  readonly run: (event: KeyboardEvent) => void;
  /** Whether holding the key goes on doing it. */
  readonly repeats?: boolean;
}

/** In what is only chosen or ticked nothing is written: letters and Enter are the place's. */
const isOnlyChosen = ({ key, target }: KeyboardEvent): boolean =>
  target instanceof HTMLInputElement && /^(radio|checkbox|range)$/.test(target.type) && (key === 'Enter' || /^[a-z]$/i.test(key));

const isWriting = (event: KeyboardEvent): boolean =>
  event.target instanceof HTMLElement &&
  (event.target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName)) &&
  !isOnlyChosen(event);

/** What the painter has gone to by key is pressed by Enter and Space as anywhere; after a press by hand they are the place's own. */
const isPressing = ({ key, target }: KeyboardEvent): boolean =>
  (key === 'Enter' || key === ' ') && target instanceof HTMLElement && target.matches('a, button') && target !== pressedByHand;

/** What a hand pressed last: it has the focus, but was not gone to. The browser's own mark for that changes with the first key. */
let pressedByHand: Element | null = null;
window.addEventListener(
  'pointerdown',
  ({ target }) => (pressedByHand = target instanceof Element ? target.closest('a, button') : null),
  true,
);
window.addEventListener('focusin', ({ target }) => {
  if (target !== pressedByHand) pressedByHand = null;
});

/** While a sheet is open, or on its way, keys are its own. */
const isCovered = (): boolean =>
  document.querySelector('.v-dialog.v-overlay--active, .v-menu.v-overlay--active') !== null || isSheetOpening();

const nameOf = ({ key, ctrlKey, metaKey, shiftKey }: KeyboardEvent): string =>
  ctrlKey || metaKey ? `mod+${shiftKey ? 'shift+' : ''}${key.toLowerCase()}` : key;

/**
 * Listens for single keys while a component is there: not while the painter writes, not behind a
 * dialog, and once a press however long it is held.
 */
export function useShortcuts(shortcuts: () => readonly Shortcut[]): void {
  onKeyStroke(true, (event) => {
    if (event.altKey || event.defaultPrevented || isWriting(event) || isPressing(event) || isCovered()) return;
    const name = nameOf(event);
    const found = shortcuts().find((s) => s.key === name || s.key === name.toLowerCase());
    if (!found) return;
    event.preventDefault();
    if (!event.repeat || found.repeats) found.run(event);
  });
}

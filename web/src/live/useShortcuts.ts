import { onBeforeUnmount, onMounted } from 'vue';

/** A key and what it does; none needs two hands. */
export interface Shortcut {
  readonly key: string;
  readonly run: () => void;
}

const isWriting = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Listens for single keys while a component is there, but not while the painter writes. */
export function useShortcuts(shortcuts: () => readonly Shortcut[]): void {
  const onKey = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey || isWriting(event.target)) return;
    const found = shortcuts().find((s) => s.key === event.key || s.key === event.key.toLowerCase());
    if (!found) return;
    event.preventDefault();
    found.run();
  };
  onMounted(() => window.addEventListener('keydown', onKey));
  onBeforeUnmount(() => window.removeEventListener('keydown', onKey));
}

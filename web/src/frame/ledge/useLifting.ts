import { useEventListener } from '@vueuse/core';
import { ref, shallowRef, type Ref } from 'vue';

/** A dab that is carried: which, where the pointer is in the window, and what lies under it. */
export interface Lifted {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  /** The dab it would be dropped on. */
  readonly onto: string | undefined;
  /** Whether it is held over what is judged. */
  readonly overStage: boolean;
  /** Whether it is held over the ledge's line, beside every dab. */
  readonly overLine: boolean;
}

/** A press that goes no further than this is a press. */
const CARRIED_PX = 10;

interface Where {
  /** The dab under a place of the window, another than one that is carried. */
  readonly dabAt: (clientX: number, clientY: number, but?: string) => string | undefined;
  /** Whether a place of the window lies on the line. */
  readonly isLine: (clientX: number, clientY: number) => boolean;
  readonly dropped: (lifted: Lifted) => void;
}

/** Picking dabs up from the ledge, by mouse, pen or finger. */
export function useLifting(strip: Readonly<Ref<HTMLElement | null>>, { dabAt, isLine, dropped }: Where) {
  const lifted = shallowRef<Lifted>();
  /** The click that ends a drag is none. */
  const justDropped = ref(false);
  let begun: { readonly id: string; readonly x: number; readonly y: number; readonly pointer: number } | undefined;

  useEventListener(strip, 'pointerdown', (event: PointerEvent) => {
    justDropped.value = false;
    if (event.button !== 0 || !event.isPrimary) return;
    const id = dabAt(event.clientX, event.clientY);
    begun = id === undefined ? undefined : { id, x: event.clientX, y: event.clientY, pointer: event.pointerId };
  });
  useEventListener(window, 'pointermove', ({ clientX: x, clientY: y, pointerId }: PointerEvent) => {
    if (!begun || pointerId !== begun.pointer) return;
    if (!lifted.value && Math.hypot(x - begun.x, y - begun.y) < CARRIED_PX) return;
    const overStage = document.elementFromPoint(x, y)?.closest('[data-drop=stage]') instanceof Element;
    const onto = dabAt(x, y, begun.id);
    lifted.value = { id: begun.id, x, y, onto, overStage, overLine: onto === undefined && isLine(x, y) };
  });
  const end = (): void => {
    const was = lifted.value;
    begun = undefined;
    lifted.value = undefined;
    if (!was) return;
    justDropped.value = true;
    dropped(was);
  };
  useEventListener(window, 'pointerup', end);
  useEventListener(window, 'pointercancel', () => {
    begun = undefined;
    lifted.value = undefined;
  });
  // A link would be dragged by the browser itself.
  useEventListener(strip, 'dragstart', (event: DragEvent) => event.preventDefault());

  return { lifted, justDropped };
}

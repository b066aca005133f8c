import type { Answer } from '@dusk/wire';
import { EVENTS } from '@dusk/wire/reads';

interface Hearing {
  /** Takes in what was changed, here or elsewhere. */
  readonly change: (answer: Answer) => void;
  /** Too much was missed: everything is to be loaded again. */
  readonly reload: () => void;
  /** The studio answers. */
  readonly here: () => void;
  /** It does not. */
  readonly away: () => void;
}

/** After a studio that was away, the browser's own trying again may have given up. */
const AGAIN_MS = 2000;

/** Hears of changes as they happen, from a place in the change log on, for as long as the window is open. */
export function hear(since: () => number, { change, reload, here, away }: Hearing): () => void {
  let source: EventSource | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  function open(): void {
    source = new EventSource(`/api${EVENTS}?since=${since()}`);
    source.addEventListener('here', here);
    source.addEventListener('reload', reload);
    source.addEventListener('change', ({ data }: MessageEvent<string>) => change(JSON.parse(data) as Answer));
    source.onerror = () => {
      away();
      source?.close();
      clearTimeout(timer);
      timer = setTimeout(open, AGAIN_MS);
    };
  }
  open();
  return () => {
    clearTimeout(timer);
    source?.close();
  };
}

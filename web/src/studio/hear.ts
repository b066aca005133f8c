import type { Answer, Looked } from '@dusk/wire';
import { EVENTS, type HereDto } from '@dusk/wire/reads';
import { alone } from './alone.ts';

interface Hearing {
  /** Takes in what was changed, here or elsewhere. */
  readonly change: (answer: Answer) => void;
  /** The picture is looked at otherwise in another window. */
  readonly looked: (looked: Looked) => void;
  /** Too much was missed: everything is to be loaded again. */
  readonly reload: () => void;
  /** The studio answers: which it is, and what its log has at the place that was last heard of. */
  readonly here: (here: HereDto) => void;
  /** It does not. */
  readonly away: () => void;
}

type Heard =
  | { readonly is: 'change'; readonly answer: Answer }
  | { readonly is: 'looked'; readonly looked: Looked }
  | { readonly is: 'here'; readonly here: HereDto }
  | { readonly is: 'reload' | 'away' };

/** After a studio that was away, the browser's own trying again may have given up. */
const AGAIN_MS = 2000;

/** Listens to the studio for all windows, for as long as this one is open. */
function listen(since: () => number, tell: (heard: Heard) => void): void {
  const source = new EventSource(`/api${EVENTS}?since=${since()}`);
  source.addEventListener('here', ({ data }: MessageEvent<string>) => tell({ is: 'here', here: JSON.parse(data) as HereDto }));
  source.addEventListener('reload', () => tell({ is: 'reload' }));
  source.addEventListener('change', ({ data }: MessageEvent<string>) => tell({ is: 'change', answer: JSON.parse(data) as Answer }));
  source.addEventListener('looked', ({ data }: MessageEvent<string>) => tell({ is: 'looked', looked: JSON.parse(data) as Looked }));
  source.onerror = () => {
    tell({ is: 'away' });
    source.close();
    setTimeout(() => listen(since, tell), AGAIN_MS);
  };
}

/**
 * Hears of changes as they happen, from a place in the change log on. One window listens for all (a lock
 * of the browser's says which), since a browser keeps only a few connections to one address open.
 * @param ready once this window has read what is there, and knows from where on to listen
 */
export function hear(since: () => number, hearing: Hearing, ready: Promise<unknown>): void {
  const channel = new BroadcastChannel('dusk.heard');
  const deal = (heard: Heard): void => {
    if (heard.is === 'change') hearing.change(heard.answer);
    else if (heard.is === 'looked') hearing.looked(heard.looked);
    else if (heard.is === 'here') hearing.here(heard.here);
    else hearing[heard.is]();
  };
  channel.onmessage = ({ data }: MessageEvent<Heard>) => deal(data);
  void alone('dusk.hearing', async () => {
    await ready;
    listen(since, (heard) => {
      channel.postMessage(heard);
      deal(heard);
    });
    // Held until the window closes; the next one then takes over.
    return new Promise<never>(() => undefined);
  });
}

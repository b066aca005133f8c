import { expect } from 'chai';
import type { Answer } from '@dusk/wire';
import { aPalette, change, openBench, read, type Bench } from './studio.ts';

interface Heard {
  readonly event: string;
  readonly id: number | undefined;
  readonly data: Answer;
}

/** Listens as a window does. */
function listen(bench: Bench, since?: number, lastId?: number) {
  const heard: Heard[] = [];
  const giveUp = new AbortController();
  const at = `${bench.running.address}api/events${since === undefined ? '' : `?since=${since}`}`;
  const done = (async () => {
    const response = await fetch(at, {
      signal: giveUp.signal,
      headers: lastId === undefined ? {} : { 'Last-Event-ID': String(lastId) },
    });
    expect(response.headers.get('content-type')).to.match(/^text\/event-stream/);
    let text = '';
    for await (const part of response.body!.pipeThrough(new TextDecoderStream())) {
      text += part;
      const blocks = text.split('\n\n');
      text = blocks.pop()!;
      for (const block of blocks) {
        const line = (name: string) => new RegExp(`^${name}: (.*)$`, 'm').exec(block)?.[1];
        const event = line('event');
        const id = line('id');
        if (event) heard.push({ event, id: id === undefined ? undefined : Number(id), data: JSON.parse(line('data')!) as Answer });
      }
    }
  })().catch(() => undefined);
  const until = async (holds: () => boolean): Promise<void> => {
    const limit = Date.now() + 1000;
    while (!holds()) {
      if (Date.now() > limit) throw new Error(`not heard within a second: ${JSON.stringify(heard.map((h) => h.event))}`);
      await new Promise((next) => setTimeout(next, 10));
    }
  };
  const changes = (): Heard[] => heard.filter((h) => h.event === 'change');
  return { heard, changes, until, stop: () => (giveUp.abort(), done) };
}

describe('open windows', () => {
  let bench: Bench;
  beforeEach(async () => (bench = await openBench()));
  afterEach(() => bench.close());

  it('hear of every change within a second, in order, by its place in the log', async () => {
    const { seq } = await read(bench);
    const one = listen(bench, seq);
    const other = listen(bench, seq);
    await one.until(() => one.heard.some((h) => h.event === 'here'));
    await other.until(() => other.heard.length > 0);
    const palette = await aPalette(bench);
    for (let version = 1; version < 6; version++)
      await change(bench, { do: 'palette.change', id: palette.id, version, name: `name ${version}` });
    for (const window of [one, other]) {
      await window.until(() => window.changes().length === 6);
      const ids = window.changes().map((h) => h.id!);
      expect(ids).to.deep.equal([...ids].sort((a, b) => a - b));
      expect(window.changes().at(-1)!.data.rows.palettes![0]!.name).to.equal('name 5');
      await window.stop();
    }
  });

  it('are told what they missed, each row once, and to load again where it is too much or another studio’s', async () => {
    const palette = await aPalette(bench);
    const { seq } = await read(bench);
    for (let version = 1; version < 4; version++)
      await change(bench, { do: 'palette.change', id: palette.id, version, name: `name ${version}` });
    for (const window of [listen(bench, seq), listen(bench, undefined, seq), listen(bench, 0, seq)]) {
      await window.until(() => window.changes().length === 1);
      expect(window.changes()[0]!.data.rows.palettes).to.have.length(1);
      expect(window.changes()[0]!.data.rows.palettes![0]!.name).to.equal('name 3');
      await window.stop();
    }
    const stranger = listen(bench, 99_999);
    await stranger.until(() => stranger.heard.some((h) => h.event === 'reload'));
    await stranger.stop();
  });

  it('hear nothing of what was refused', async () => {
    const palette = await aPalette(bench);
    const { seq } = await read(bench);
    const window = listen(bench, seq);
    await window.until(() => window.heard.length > 0);
    await bench.http.post('/api/changes').send({ id: 'x' }).expect(422);
    await change(bench, { do: 'palette.change', id: palette.id, version: 1, name: 'last' });
    await window.until(() => window.changes().length > 0);
    expect(window.changes()).to.have.length(1);
    await window.stop();
  });
});

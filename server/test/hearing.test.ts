import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { once } from 'node:events';
import { connect } from 'node:net';
import { STUDIO_HEADER, type Answer, type HereDto } from '@dusk/wire';
import { aPalette, change, idOf, newId, openBench, read, refused, type Bench } from './studio.ts';

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
    const late = AbortSignal.timeout(15_000);
    while (!holds()) {
      if (late.aborted) throw new Error(`not heard: ${JSON.stringify(heard.map((h) => h.event))}`);
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

  it('hear of every change, in order, by its place in the log', async () => {
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

  it('are told which studio this is, and what its log has at the place they had come to', async () => {
    await aPalette(bench);
    const first = (await read(bench)) as Answer & { studio: string };
    await aPalette(bench);
    const window = listen(bench, first.seq);
    await window.until(() => window.heard.length > 0);
    const here = window.heard[0]!.data as unknown as HereDto;
    expect(here).to.deep.equal({ studio: first.studio, seq: first.seq, log: first.log });
    expect(first.studio).to.match(/^[0-9a-f]{32}$/);
    await window.stop();
    const other = await openBench(mkdtempSync(join(tmpdir(), 'dusk-other-')));
    expect(((await read(other)) as Answer & { studio: string }).studio).to.not.equal(first.studio);
    // A change that was meant for another studio is not taken in.
    const op = { do: 'palette.add', id: newId(), name: 'astray', tubeIds: [idOf(other, 'titanium-white')] };
    const sent = other.http
      .post('/api/changes')
      .set(STUDIO_HEADER, first.studio)
      .send({ id: newId(), device: 'a test', ops: [op] });
    await refused(sent, 421);
    await other.close();
  });

  it('that do not read what they are told are let go of, and are no more than so many', async () => {
    const { address } = bench.running;
    const { port } = new URL(address);
    const deaf = await Promise.all(
      Array.from({ length: 3 }, async () => {
        const socket = connect(Number(port), '127.0.0.1');
        socket.write(`GET /api/events HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\n\r\n`);
        await once(socket, 'data');
        socket.pause();
        return socket;
      }),
    );
    const { hearing } = bench.running.studio;
    expect(hearing.size).to.equal(3);
    const long = 'x'.repeat(1_000_000);
    for (let i = 0; i < 24 && hearing.size > 0; i++) {
      hearing.tell({ seq: 1000 + i, rows: { palettes: [{ name: long }] } } as never);
      await new Promise((turn) => setTimeout(turn, 20));
    }
    expect(hearing.size, 'nobody is waited for without end').to.equal(0);
    for (const socket of deaf) socket.destroy();
    const many = Array.from({ length: 66 }, () => fetch(`${address}api/events`).then((response) => response));
    const answers = await Promise.all(many);
    expect(answers.filter(({ status }) => status === 503)).to.have.length(2);
    await Promise.all(answers.flatMap((answer) => answer.body?.cancel() ?? []));
  });

  it('hear how the picture is looked at in another, also those that come later; nothing of it is kept', async () => {
    const looked = {
      device: 'a tablet',
      paintingId: newId(),
      referenceId: null,
      look: 'values',
      squintPx: 8,
      ...{ grey: true, squint: false, asPaint: false, mirror: false, grid: true, marks: true, lost: false },
      at: { x: 120.5, y: 80 },
    };
    const { seq } = await read(bench);
    const isHeard = ({ event }: Heard): boolean => event === 'looked';
    const one = listen(bench, seq);
    await one.until(() => one.heard.length > 0);
    await bench.http.post('/api/looked').send(looked).expect(204);
    await one.until(() => one.heard.some(isHeard));
    const late = listen(bench, seq);
    await late.until(() => late.heard.some(isHeard));
    for (const { heard } of [one, late]) expect(heard.find(isHeard)!.data).to.deep.equal(looked);
    for (const wrong of [
      { ...looked, look: 'upside down' },
      { ...looked, paintingId: 'the yard' },
      { ...looked, squintPx: 1e9 },
      { ...looked, grey: 'yes' },
      { ...looked, at: { x: -1, y: 0 } },
      { ...looked, at: 4 },
      { ...looked, aloud: true },
      { ...looked, device: '' },
    ])
      await refused(bench.http.post('/api/looked').send(wrong), 422);
    await refused(bench.http.post('/api/looked').set(STUDIO_HEADER, 'f'.repeat(32)).send(looked), 421);
    expect((await read(bench)).seq).to.equal(seq);
    expect(one.heard.filter(isHeard)).to.have.length(1);
    await Promise.all([one.stop(), late.stop()]);
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

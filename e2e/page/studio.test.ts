import { expect } from 'chai';
import { useStudio } from '../../web/src/studio/useStudio.ts';
import { useNotices } from '../../web/src/floor/notices.ts';
import { usePaintings } from '../../web/src/stores/paintings.ts';
import { soon } from '../soon.ts';
import { Page } from './page.ts';

describe('the one way to the studio', () => {
  let page: Page;
  let studio: ReturnType<typeof useStudio>;
  let notices: ReturnType<typeof useNotices>;
  let paintings: ReturnType<typeof usePaintings>;
  before(async () => {
    page = await Page.open();
    [studio, notices, paintings] = page.within(() => [useStudio(), useNotices(), usePaintings()]);
  });
  after(() => page.end());
  const first = () => paintings.all[0]!;

  it('shows what the studio answers to a change, says it, and takes it back and does it again', async () => {
    const { id, title } = first();
    expect(await paintings.change(id, { title: 'Jug by the north window' })).to.equal(true);
    expect(paintings.byId.get(id)!.title).to.equal('Jug by the north window');
    expect(notices.current).to.deep.include({ text: `Changed “${title}”`, tone: 'saved' });
    await studio.undo();
    expect(paintings.byId.get(id)!.title).to.equal(title);
    expect(notices.current!.text).to.match(/^Taken back: Changed/);
    await studio.redo();
    expect(paintings.byId.get(id)!.title).to.equal('Jug by the north window');
    await studio.undo();
  });

  it('what two quick hands lay on one row are both done: the second is meant for the row as the first leaves it', async () => {
    const { id } = first();
    const version = paintings.byId.get(id)!.version;
    const done = await Promise.all([paintings.change(id, { title: 'One' }), paintings.change(id, { layer: 2 })]);
    expect(done).to.deep.equal([true, true]);
    expect(paintings.byId.get(id)).to.deep.include({ title: 'One', layer: 2, version: version + 2 });
    await studio.undo();
    await studio.undo();
    expect(paintings.byId.get(id)!.title).to.not.equal('One');
  });

  it('what is refused is said in a sentence, changes nothing and cannot be taken back', async () => {
    const { id, title } = first();
    const last = studio.undoable?.id;
    expect(await paintings.change(id, { title: 'x'.repeat(4000) })).to.equal(false);
    expect(paintings.byId.get(id)!.title).to.equal(title);
    expect(notices.current!.tone).to.equal('refused');
    expect(notices.current!.text).to.match(/title.*letters/i);
    expect(studio.undoable?.id).to.equal(last);
    notices.dismiss();
  });

  it('a row that was changed elsewhere meanwhile is refused to a hand that saw it before', async () => {
    const { id, version } = first();
    await paintings.change(id, { title: 'Elsewhere' });
    const made = await studio.make([{ do: 'painting.change', id, version, title: 'Here' }], 'Named');
    expect(made).to.equal(false);
    expect(paintings.byId.get(id)!.title).to.equal('Elsewhere');
    notices.dismiss();
    await studio.undo();
  });

  it('nothing is taken back where nothing was done, and that is said', async () => {
    while (studio.undoable) await studio.undo();
    await studio.undo();
    expect(notices.current!.text).to.equal('Nothing was done here yet.');
  });

  it('keeps three paintings in memory and lets the piles of a fourth go', async () => {
    const { id: paletteId } = [...studio.rows.palettes.values()].find(({ deletedAt }) => deletedAt === null)!;
    const [own] = [...studio.rows.paintings.keys()];
    await studio.load('painting', own);
    await soon(() => [...studio.rows.piles.values()].some(({ paintingId }) => paintingId === own), 'its piles');
    for (const title of ['Two', 'Three', 'Four']) {
      const id = await paintings.add({ title, paletteId });
      await studio.load('painting', id);
    }
    expect([...studio.rows.piles.values()].some(({ paintingId }) => paintingId === own)).to.equal(false);
  });
});

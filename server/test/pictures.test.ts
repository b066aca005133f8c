import { expect } from 'chai';
import { deltaE76, hexToLab, readArea } from '@dusk/core';
import { PICTURE_LONGEST_SIDE, type PaintingDto, type PictureDto } from '@dusk/wire';
import sharp, { type Sharp } from 'sharp';
import { aPainting, change, newId, openBench, read, refused, type Bench } from './studio.ts';

/** Left half one colour, right half another. */
async function twoHalves(width: number, height: number, left: string, right: string): Promise<Sharp> {
  const half = (background: string) =>
    sharp({ create: { width: width / 2, height, channels: 3, background } })
      .png()
      .toBuffer();
  return sharp({ create: { width, height, channels: 3, background: left } }).composite([
    { input: await half(right), left: width / 2, top: 0 },
  ]);
}

describe('pictures', () => {
  let bench: Bench;
  let painting: PaintingDto;
  before(async () => {
    bench = await openBench();
    painting = await aPainting(bench);
  });
  after(() => bench.close());

  const upload = (bytes: Buffer, name: string) => bench.http.post('/api/pictures').attach('picture', bytes, name);
  const kept = async (picture: PictureDto) => {
    const { body, headers } = await bench.http.get(`/api/pictures/${picture.id}`).expect(200);
    return { bytes: body as Buffer, type: headers['content-type'] as string };
  };
  const labAt = async (bytes: Buffer, x: number, y: number) => {
    const { data, info } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    return readArea({ data, width: info.width, height: info.height }, x, y, 4).lab;
  };

  it('are kept once, whole and in their colours', async () => {
    const png = await (await twoHalves(200, 100, '#8a6b4f', '#406080')).png().toBuffer();
    const one = (await upload(png, 'one.png').expect(201)).body as PictureDto;
    const two = (await upload(png, 'again.png').expect(200)).body as PictureDto;
    expect(one).to.include({ width: 200, height: 100 });
    expect(two).to.deep.equal(one);
    const { bytes, type } = await kept(one);
    expect(type).to.match(/image\/png/);
    expect(deltaE76(await labAt(bytes, 40, 50), hexToLab('#8a6b4f'))).to.be.below(0.01);
    expect(deltaE76(await labAt(bytes, 160, 50), hexToLab('#406080'))).to.be.below(0.01);
  });

  it('stand upright whatever their orientation says', async () => {
    const sideways = await (
      await twoHalves(120, 80, '#d0d0d0', '#202020')
    )
      .withMetadata({ orientation: 6 })
      .jpeg({ quality: 95 })
      .toBuffer();
    const picture = (await upload(sideways, 'sideways.jpg').expect(201)).body as PictureDto;
    expect(picture).to.include({ width: 80, height: 120 });
    const { bytes } = await kept(picture);
    // Orientation 6 turns the left side to the top.
    expect((await labAt(bytes, 40, 20))[0]).to.be.above(70);
    expect((await labAt(bytes, 40, 100))[0]).to.be.below(20);
  });

  it('lose their metadata and have their profile converted to sRGB', async () => {
    const p3 = await sharp({ create: { width: 40, height: 40, channels: 3, background: '#b05030' } })
      .withIccProfile('p3')
      .withExif({ IFD0: { Copyright: 'somebody', Artist: 'somebody' } })
      .png()
      .toBuffer();
    const raw = await sharp(p3).metadata();
    expect(raw.icc, 'the sample has a profile').to.not.equal(undefined);
    const { bytes } = await kept((await upload(p3, 'wide.png').expect(201)).body as PictureDto);
    const meta = await sharp(bytes).metadata();
    expect(meta.exif).to.equal(undefined);
    expect(meta.icc).to.equal(undefined);
    expect(deltaE76(await labAt(bytes, 20, 20), hexToLab('#b05030'))).to.be.below(1.5);
  });

  it('are brought down to size', async () => {
    const large = await sharp({ create: { width: 5000, height: 1000, channels: 3, background: '#777' } })
      .jpeg()
      .toBuffer();
    expect((await upload(large, 'large.jpg').expect(201)).body).to.include({ width: PICTURE_LONGEST_SIDE, height: 480 });
  });

  it('that are none are refused and leave nothing behind', async () => {
    const count = () => bench.running.studio.look((db) => db.query('SELECT COUNT(*) AS n FROM picture'));
    const before = await count();
    const jpeg = await sharp({ create: { width: 300, height: 300, channels: 3, background: '#8a6b4f' } })
      .jpeg()
      .toBuffer();
    const bomb = await sharp({ create: { width: 10_000, height: 10_000, channels: 3, background: '#fff' }, limitInputPixels: false })
      .png({ compressionLevel: 9 })
      .toBuffer();
    await refused(upload(Buffer.from('hello, I am a text'), 'text.jpg'), 422);
    await refused(upload(Buffer.alloc(0), 'empty.png'), 422);
    await refused(upload(jpeg.subarray(0, jpeg.length / 2), 'half.jpg'), 422);
    await refused(upload(jpeg.subarray(0, 30), 'head.jpg'), 422);
    await refused(upload(bomb, 'bomb.png'), 413);
    await refused(upload(Buffer.alloc(41 * 1024 * 1024, 1), 'huge.jpg'), 413);
    await refused(
      upload(
        await sharp({ create: { width: 9, height: 9, channels: 3, background: '#fff' } })
          .gif()
          .toBuffer(),
        'x.gif',
      ),
      422,
    );
    await refused(upload(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'), 'x.svg'), 422);
    await refused(bench.http.post('/api/pictures'), 422);
    await refused(bench.http.post('/api/pictures').attach('other', jpeg, 'x.jpg'), 422);
    expect(await count()).to.deep.equal(before);
  }).timeout(60_000);

  it('are taken from the painting and brought back', async () => {
    const png = await sharp({ create: { width: 10, height: 10, channels: 3, background: '#123456' } })
      .png()
      .toBuffer();
    const { id: pictureId } = (await upload(png, 'one.png')).body as PictureDto;
    const id = newId();
    await change(bench, { do: 'reference.add', id, paintingId: painting.id, pictureId, name: 'one' });
    const references = async () => (await read(bench)).rows.references!;
    expect((await references())[0]).to.include({ id, pictureId, name: 'one', width: 10, height: 10 });
    await change(bench, { do: 'reference.delete', id, version: 1 });
    expect(await references()).to.deep.equal([]);
    await change(bench, { do: 'reference.restore', id, version: 2 });
    expect(await references()).to.have.length(1);
  });
});

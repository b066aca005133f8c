import { expect } from 'chai';
import {
  areaWarning,
  D50_TO_D65,
  deltaE76,
  DISPLAY_P3,
  hexToLab,
  labToXyz,
  linearToLab,
  readArea,
  readProfile,
  SHOWN_SPACES,
  WIDE,
  xyzToLab,
  type Lab,
  type AreaReading,
} from '@dusk/core';
import { PICTURE_LONGEST_SIDE, UPLOAD_MOST_BYTES, type Operation, type PaintingDto, type PictureDto } from '@dusk/wire';
import sharp, { type Sharp } from 'sharp';
import { ADOBE_GAMMA, ADOBE_RGB, matrixProfile, PROPHOTO } from '../../core/test/pictures.ts';
import { tagJpeg, tagPng } from '../src/pictures/tag.ts';
import { aPainting, aPile, change, newId, openBench, read, refused, send, type Bench } from './studio.ts';

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

const flat = (background: string, width = 48, height = 32): Sharp => sharp({ create: { width, height, channels: 3, background } });

/** A colour of Lab under D50 as it looks under D65 (Bradford, as profiles do it). */
function adaptedFromD50(lab: Lab): Lab {
  const [X, Y, Z] = labToXyz(lab, [96.42, 100, 82.49]);
  const row = (i: number): number => D50_TO_D65[i]! * X + D50_TO_D65[i + 1]! * Y + D50_TO_D65[i + 2]! * Z;
  return xyzToLab([row(0), row(3), row(6)], [95.0456, 100, 108.9058]);
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

  /** Reads a place of the copy that is looked at, in the space that the studio says it is in. */
  async function labIn(picture: PictureDto, x: number, y: number): Promise<Lab> {
    const { data, info } = await sharp((await kept(picture)).bytes, { ignoreIcc: true })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return readArea({ data, width: info.width, height: info.height, space: SHOWN_SPACES[picture.space]! }, x, y, 4).lab;
  }
  const own = async ({ id }: PictureDto): Promise<Buffer> => (await bench.http.get(`/api/pictures/${id}/own`).expect(200)).body as Buffer;
  const sent = async (bytes: Buffer, name: string): Promise<PictureDto> => (await upload(bytes, name).expect(201)).body as PictureDto;
  const SPOKEN = Buffer.from('somebody');

  it('are kept once, whole and in their colours', async () => {
    const png = await (await twoHalves(200, 100, '#8a6b4f', '#406080')).png().toBuffer();
    const one = await sent(png, 'one.png');
    const two = (await upload(png, 'again.png').expect(200)).body as PictureDto;
    expect(one).to.include({ width: 200, height: 100, space: 'srgb' });
    expect(two).to.deep.equal(one);
    const { bytes, type } = await kept(one);
    expect(type).to.match(/image\/png/);
    expect(deltaE76(await labAt(bytes, 40, 50), hexToLab('#8a6b4f'))).to.be.below(0.01);
    expect(deltaE76(await labAt(bytes, 160, 50), hexToLab('#406080'))).to.be.below(0.01);
  });

  for (const [format, save] of Object.entries({
    JPEG: (s: Sharp) => s.jpeg({ quality: 95 }),
    PNG: (s: Sharp) => s.png(),
    WebP: (s: Sharp) => s.webp({ lossless: true }),
    AVIF: (s: Sharp) => s.avif({ lossless: true }),
    TIFF: (s: Sharp) => s.tiff({ compression: 'lzw' }),
  }))
    it(`are kept as ${format}, their pixels as they came, without what was written beside them`, async () => {
      const image = (await twoHalves(96, 60 + 2 * format.length, '#8a6b4f', '#406080'))
        .withXmp('<x:xmpmeta xmlns:x="adobe:ns:meta/">somebody</x:xmpmeta>')
        .withExif({
          IFD0: { Artist: 'somebody', Copyright: 'somebody' },
          IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1' },
        });
      const file = await save(image).toBuffer();
      expect(file.includes(SPOKEN), 'the sample speaks').to.equal(true);
      const picture = await sent(file, `a.${format.toLowerCase()}`);
      expect(deltaE76(await labIn(picture, 20, 30), hexToLab('#8a6b4f'))).to.be.below(1.5);
      const bytes = await own(picture);
      expect(bytes.includes(SPOKEN)).to.equal(false);
      const meta = await sharp(bytes).metadata();
      expect(meta.exif).to.equal(undefined);
      const pixels = (of: Buffer) => sharp(of).removeAlpha().raw().toBuffer();
      expect((await pixels(bytes)).equals(await pixels(file)), 'its own pixels').to.equal(true);
      const small = await bench.http.get(`/api/pictures/${picture.id}/small`).expect(200);
      expect((await sharp(small.body as Buffer).metadata()).width).to.be.at.most(480);
    });

  for (const orientation of [1, 2, 3, 4, 5, 6, 7, 8])
    it(`stand upright from orientation ${orientation}`, async () => {
      // What the picture is, upright: dark at the left top, light elsewhere.
      const upright = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#d0d0d0' } })
        .composite([{ input: await flat('#202020', 30, 20).png().toBuffer(), left: 0, top: 0 }])
        .png()
        .toBuffer();
      // The sensor's way of holding it: what undoes the orientation.
      const once = await sharp(upright).rotate(90).png().toBuffer();
      const thrice = await sharp(upright).rotate(270).png().toBuffer();
      const undone: Record<number, (s: Sharp) => Sharp> = {
        1: (s) => s,
        2: (s) => s.flop(),
        3: (s) => s.rotate(180),
        4: (s) => s.flip(),
        5: () => sharp(once).flop(),
        6: (s) => s.rotate(270),
        7: () => sharp(thrice).flop(),
        8: (s) => s.rotate(90),
      };
      const held = await undone[orientation]!(sharp(upright)).png().toBuffer();
      const file = await sharp(held).withMetadata({ orientation }).jpeg({ quality: 96 }).toBuffer();
      const picture = await sent(file, 'held.jpg');
      expect(picture).to.include({ width: 60, height: 40 });
      expect((await labIn(picture, 12, 8))[0]).to.be.below(20);
      for (const [x, y] of [
        [48, 8],
        [12, 32],
        [48, 32],
      ] as const)
        expect((await labIn(picture, x, y))[0], `${x} ${y}`).to.be.above(70);
    });

  it('of Adobe RGB and ProPhoto are what their profile says, beyond sRGB too', async () => {
    for (const [icc, numbers] of [
      [matrixProfile(ADOBE_RGB, ADOBE_GAMMA), [120, 200, 90]],
      [matrixProfile(ADOBE_RGB, ADOBE_GAMMA), [140, 110, 80]],
      [matrixProfile(PROPHOTO, [1.8, 1, 0, 1 / 16, 1 / 32]), [120, 100, 70]],
    ] as const) {
      const profile = readProfile(icc);
      if (profile.kind !== 'matrix') throw new Error('no matrix');
      const [r, g, b] = numbers.map((v, i) => profile.space.curves[i]!(v / 255)) as [number, number, number];
      const truth = linearToLab(profile.space, r, g, b);
      const raw = Buffer.from(Array.from({ length: 48 * 32 }, () => numbers).flat());
      const image = sharp(raw, { raw: { width: 48, height: 32, channels: 3 } });
      const png = await sent(tagPng(await image.clone().png().toBuffer(), icc), 'wide.png');
      expect(png.space).to.equal('display-p3');
      expect(deltaE76(await labIn(png, 20, 16), truth)).to.be.below(0.8);
      const jpeg = await sent(tagJpeg(await image.jpeg({ quality: 100 }).toBuffer(), icc), 'wide.jpg');
      expect(deltaE76(await labIn(jpeg, 20, 16), truth)).to.be.below(1.2);
    }
  });

  it('of sixteen bits in Display P3 keep their bits, and are seen in their colours', async () => {
    const numbers = [0.9, 0.25, 0.2].map((v) => Math.round(v * 65535));
    const raw = Uint16Array.from(Array.from({ length: 48 * 32 }, () => numbers).flat());
    const p3 = (await sharp(await flat('#000').withIccProfile('p3').png().toBuffer()).metadata()).icc!;
    const file = tagPng(
      await sharp(raw, { raw: { width: 48, height: 32, channels: 3 } })
        .toColourspace('rgb16')
        .png()
        .toBuffer(),
      p3,
    );
    const picture = await sent(file, 'deep.png');
    expect(picture.space).to.equal('display-p3');
    expect(picture.colours).to.match(/16 bits/);
    const [r, g, b] = [0.9, 0.25, 0.2].map((v, i) => DISPLAY_P3.curves[i]!(v)) as [number, number, number];
    expect(deltaE76(await labIn(picture, 20, 16), linearToLab(DISPLAY_P3, r, g, b))).to.be.below(1);
    expect((await sharp(await own(picture)).metadata()).depth).to.equal('ushort');
    // Any other program sees it so as well: the copy says what its numbers mean.
    expect((await sharp((await kept(picture)).bytes).metadata()).icc).to.not.equal(undefined);
  });

  it('in grey are grey', async () => {
    for (const file of [
      await flat('#777777').toColourspace('b-w').png().toBuffer(),
      await flat('#777777').toColourspace('b-w').jpeg({ quality: 98 }).toBuffer(),
    ])
      expect(deltaE76(await labIn(await sent(file, 'grey'), 20, 16), hexToLab('#777777'))).to.be.below(0.6);
  });

  /** What littlecms 2.14 makes of the numbers in such files (transicc, relative colorimetric, without black point compensation, to Lab under D50). */
  const CMYK_TRUTH: Readonly<Record<string, Lab>> = {
    '#3060a0': [38.0944, -3.6445, -30.7344],
    '#8a6b4f': [47.2212, 7.7188, 22.6758],
    '#202428': [23.1097, 0.4336, -2.0664],
    '#c83c3c': [46.5732, 56.8281, 31.2109],
    '#e8d8b0': [85.0904, 0.3164, 19.168],
    '#5a7a48': [46.9792, -18.9063, 24.4648],
    '#d0d0d0': [77.9381, 0.6016, 0.3398],
  };
  it('in CMYK are what littlecms makes of them by their profile', async () => {
    for (const [hex, [L, a, b]] of Object.entries(CMYK_TRUTH)) {
      const file = await flat(hex, 64, 64)
        .toColourspace('cmyk')
        .withIccProfile('cmyk')
        .jpeg({ quality: 100, chromaSubsampling: '4:4:4' })
        .toBuffer();
      const picture = await sent(file, 'ink.jpg');
      expect(picture.colours).to.match(/^CMYK/);
      const [l, aa, bb] = await labIn(picture, 32, 32);
      // Both are relative to their own white: hue and chroma move a little from D50 to D65.
      expect(deltaE76([l, aa, bb], adaptedFromD50([L, a, b])), hex).to.be.below(1);
    }
  });

  it('lie at full size beside a copy to look at', async () => {
    const large = await sharp({ create: { width: 5000, height: 1000, channels: 3, background: '#777' } })
      .jpeg()
      .toBuffer();
    const picture = await sent(large, 'large.jpg');
    expect(picture).to.include({ width: 5000, height: 1000 });
    expect((await sharp((await kept(picture)).bytes).metadata()).width).to.equal(PICTURE_LONGEST_SIDE);
    expect((await sharp(await own(picture)).metadata()).width).to.equal(5000);
  });

  it('are read a piece at a time in their own pixels, whichever way they were held', async () => {
    // Four quarters of their own colours, each: what is cut out is known by its colour.
    const [width, height] = [260, 200];
    const quarter = (background: string) =>
      sharp({ create: { width: width / 2, height: height / 2, channels: 3, background } })
        .png()
        .toBuffer();
    const [nw, ne, sw, se] = ['#803020', '#208040', '#304080', '#c0b060'];
    const upright = await sharp({ create: { width, height, channels: 3, background: nw } })
      .composite([
        { input: await quarter(ne), left: width / 2, top: 0 },
        { input: await quarter(sw), left: 0, top: height / 2 },
        { input: await quarter(se), left: width / 2, top: height / 2 },
      ])
      .png()
      .toBuffer();
    for (let orientation = 1; orientation <= 8; orientation++) {
      const file = await sharp(upright).jpeg({ quality: 95 }).withMetadata({ orientation }).toBuffer();
      const shown = await sharp(file).autoOrient().raw().toBuffer({ resolveWithObject: true });
      const { body: picture } = await upload(file, `held ${orientation}.jpg`).expect(201);
      const [wide, high] = [shown.info.width, shown.info.height];
      for (const [x, y] of [
        [20, 10],
        [wide - 60, 10],
        [20, high - 90],
        [wide - 60, high - 90],
      ] as const) {
        const { body, headers } = await bench.http
          .get(`/api/pictures/${picture.id}/piece?left=${x}&top=${y}&width=40&height=80`)
          .expect(200);
        expect(headers['content-type']).to.equal('image/png');
        const piece = await sharp(body as Buffer)
          .raw()
          .toBuffer({ resolveWithObject: true });
        expect([piece.info.width, piece.info.height]).to.deep.equal([40, 80]);
        const at = (y * wide + x) * 3;
        for (let c = 0; c < 3; c++) expect(Math.abs(piece.data[c]! - shown.data[at + c]!), `${orientation}, ${x}, ${y}`).to.be.at.most(1);
      }
      for (const off of [
        'left=-1&top=0&width=4&height=4',
        `left=${wide - 3}&top=0&width=4&height=4`,
        'left=0&top=0&width=641&height=4',
        'left=a',
      ])
        await refused(bench.http.get(`/api/pictures/${picture.id}/piece?${off}`), 422);
    }
  });

  it('in a wider space are read in pieces in the space of their copy', async () => {
    const profile = matrixProfile(ADOBE_RGB, ADOBE_GAMMA);
    const file = tagJpeg(await flat('#20c040', 60, 40).jpeg({ quality: 100, chromaSubsampling: '4:4:4' }).toBuffer(), profile);
    const { body: picture } = await upload(file, 'wide.jpg').expect(201);
    const { bytes } = await kept(picture as PictureDto);
    const { body } = await bench.http.get(`/api/pictures/${picture.id}/piece?left=8&top=8&width=16&height=16`).expect(200);
    const numbers = async (of: Buffer) => [...(await sharp(of, { ignoreIcc: true }).raw().toBuffer()).subarray(0, 3)];
    expect(await numbers(body as Buffer)).to.deep.equal(await numbers(bytes));
  });

  /** A place of a picture, read from a piece of it in the wide space. */
  async function readWide({ id }: PictureDto): Promise<AreaReading> {
    const { body } = await bench.http.get(`/api/pictures/${id}/piece?left=8&top=8&width=16&height=16&wide=1`).expect(200);
    const data = await sharp(body as Buffer)
      .ensureAlpha()
      .raw()
      .toBuffer();
    return readArea({ data, width: 16, height: 16, space: WIDE, marksLost: true }, 8, 8, 4);
  }

  it('stronger than their copy can say are told so, and read in a wider space', async () => {
    const profile = matrixProfile(ADOBE_RGB, ADOBE_GAMMA);
    const read = readProfile(profile);
    if (read.kind !== 'matrix') throw new Error('no matrix');
    for (const [hex, rgb] of [
      ['#00ff00', [0, 1, 0]],
      ['#10e8a0', [16 / 255, 232 / 255, 160 / 255]],
    ] as const) {
      const file = tagPng(await flat(hex, 60, 40).png().toBuffer(), profile);
      const { body: picture } = await upload(file, 'strong.png').expect(201);
      const [r, g, b] = rgb.map((v, i) => read.space.curves[i]!(v)) as [number, number, number];
      const truth = linearToLab(read.space, r, g, b);
      const copy = await sharp((await kept(picture as PictureDto)).bytes, { ignoreIcc: true })
        .ensureAlpha()
        .raw()
        .toBuffer();
      const seen = readArea({ data: copy, width: 60, height: 40, space: DISPLAY_P3 }, 30, 20, 4);
      expect(seen.atEdge, 'the copy ends here').to.equal(1);
      expect(areaWarning(seen)).to.match(/stronger/);
      expect(deltaE76(seen.lab, truth), 'by the copy').to.be.above(8);
      const wide = await readWide(picture as PictureDto);
      expect(deltaE76(wide.lab, truth), 'by the piece').to.be.below(1);
      // The file itself has no more to say of a pure primary.
      expect(wide.atEdge).to.equal(hex === '#00ff00' ? 1 : 0);
    }
  });

  it('lighter than their copy can say are told clipped only where their file is', async () => {
    const profile = matrixProfile(ADOBE_RGB, ADOBE_GAMMA);
    const read = readProfile(profile);
    if (read.kind !== 'matrix') throw new Error('no matrix');
    for (const [hex, says] of [
      ['#ff0000', /strong/],
      ['#fa2818', undefined],
      ['#fcfa10', undefined],
      ['#fffc80', /Clipped/],
      ['#020101', /Crushed/],
    ] as const) {
      const [r, g, b] = [1, 3, 5].map((at, i) => read.space.curves[i]!(parseInt(hex.slice(at, at + 2), 16) / 255)) as [
        number,
        number,
        number,
      ];
      const { body: picture } = await upload(tagPng(await flat(hex, 60, 40).png().toBuffer(), profile), 'light.png').expect(201);
      const wide = await readWide(picture as PictureDto);
      expect(deltaE76(wide.lab, linearToLab(read.space, r, g, b)), hex).to.be.below(1);
      const warns = areaWarning(wide);
      if (says) expect(warns, hex).to.match(says);
      else expect(warns, hex).to.equal(undefined);
    }
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
    await refused(upload(Buffer.alloc(UPLOAD_MOST_BYTES + 1024, 1), 'huge.jpg'), 413);
    const tagged = tagPng(await flat('#777').png().toBuffer(), matrixProfile(ADOBE_RGB, ADOBE_GAMMA).subarray(0, 180));
    expect((await refused(upload(tagged, 'profile.png'), 422)).body.detail).to.match(/profile in this PNG/);
    expect((await refused(upload(jpeg.subarray(0, jpeg.length / 2), 'half.jpg'), 422)).body.detail).to.match(/JPEG/);
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

  it('are seen in ways that are refused where they cannot be', async () => {
    const { id: pictureId } = (await upload(await flat('#123456').png().toBuffer(), 'one.png')).body as PictureDto;
    const id = newId();
    await change(bench, { do: 'reference.add', id, paintingId: painting.id, pictureId, name: 'seen' });
    const crop = { x: 0, y: 0, width: 0.5, height: 0.5 };
    for (const view of [
      null,
      [],
      { turn: 4 },
      { straighten: 80 },
      { crop: { ...crop, x: 0.8 } },
      { crop: { ...crop, width: 0 } },
      { exposure: 'bright' },
      { kelvin: 10 },
      { neutral: { L: 500, a: 0, b: 0 } },
      { key: { kind: 'high' } },
      { key: { kind: 'fitted' } },
      { key: { kind: 'moved', held: 0.5, from: 3 } },
      { grid: { across: 0, down: 3, diagonals: false, thirds: false } },
      { steps: [] },
      { steps: [5, 4] },
      { steps: [1, 2, 3, 4, 5, 6, 7, 8, 9] },
      { pivot: 1e6 },
      { tilt: 3 },
    ])
      await refused(send(bench, [{ do: 'reference.change', id, version: 1, view } as unknown as Operation]), 422);
    const view = { turn: 1, crop, key: { kind: 'moved' as const, held: 0.5, from: 4, to: 3 }, steps: [2, 5], mirror: true };
    const rows = await change(bench, { do: 'reference.change', id, version: 1, view });
    expect(rows.references![0]!.view).to.deep.equal(view);
  });

  it('carry plans, trials and what a photo of the canvas says, and refuse such as cannot be', async () => {
    const painting = await aPainting(bench);
    const { id: pictureId } = await sent(await (await twoHalves(64, 48, '#8a6b4f', '#406080')).png().toBuffer(), 'planned.png');
    const sending = (op: unknown) => send(bench, [op as Operation]);
    const id = newId();
    await change(bench, { do: 'reference.add', id, paintingId: painting.id, pictureId, name: 'planned' });
    const lab = { L: 50, a: 0, b: 0 };
    const points = [0, 0, 1, 0, 1, 1];
    const corners = [0.1, 0.1, 0.9, 0.1, 0.9, 0.9, 0.1, 0.9];
    for (const view of [
      { shapes: [{ points: [0, 0, 1, 0], lab }] },
      { shapes: [{ points: [...points, 0.5], lab }] },
      { shapes: [{ points: [0, 0, 2, 0, 1, 1], lab }] },
      { shapes: [{ points }] },
      { shapes: [{ points, lab, pileId: 'copper' }] },
      { shapes: Array.from({ length: 61 }, () => ({ points, lab })) },
      { dress: ['copper'] },
      { dress: Array.from({ length: 10 }, () => '') },
      { trials: Array.from({ length: 9 }, () => ({ changes: [] })) },
      { trials: [{ changes: [{ points, lighter: 9 }] }] },
      { trials: [{ changes: [{ points, moveX: 2 }] }] },
      { canvas: { of: id, corners: corners.slice(0, 6) } },
      { canvas: { of: id, corners: [0.1, 0.1, 0.1, 0.9, 0.9, 0.9, 0.9, 0.1] } },
      { canvas: { of: 'it', corners } },
      { canvas: { of: id, corners, white: { x: 2, y: 0 } } },
      { blank: 'yes' },
      // What is not there is not spoken of.
      { dress: ['', newId()] },
      { shapes: [{ points, lab, pileId: newId() }] },
      { trials: [{ changes: [{ points, pileId: newId() }] }] },
      { canvas: { of: newId(), corners } },
    ])
      await refused(sending({ do: 'reference.change', id, version: 1, view }), 422);
    const pile = await aPile(bench, painting.id);
    const view = {
      dress: ['', 'mean', pile.id],
      shapes: [{ points, lab, thing: 'the wall', pileId: pile.id }],
      trials: [{ changes: [{ points, lighter: -1.5 }] }],
      canvas: { of: id, corners, white: { x: 0.5, y: 0.02 }, meant: [{ points }] },
      blank: true,
    };
    const kept = await change(bench, { do: 'reference.change', id, version: 1, view } as never);
    expect(kept.references!.find((one) => one.id === id)!.view).to.deep.equal(view);
    // A pile that was put away since may still be spoken of, as it was.
    await change(bench, { do: 'pile.delete', id: pile.id, version: pile.version });
    const turned = await change(bench, { do: 'reference.change', id, version: 2, view: { ...view, turn: 1 } } as never);
    expect(turned.references![0]!.view.turn).to.equal(1);
    for (const between of [{ darkest: 6, lightest: 3 }, { darkest: 5, lightest: 5.2 }, { darkest: -1, lightest: 5 }, 'dim'])
      await refused(sending({ do: 'painting.change', id: painting.id, version: painting.version, between }), 422);
    await refused(sending({ do: 'sample.add', id: newId(), paintingId: painting.id, seen: lab, paint: lab, light: 'x'.repeat(61) }), 422);
  });
});

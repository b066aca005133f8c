import { crc32, deflateSync } from 'node:zlib';
import sharp from 'sharp';

const crc = crc32 as unknown as (data: Buffer) => number;

/** A PNG that says what its colours mean: the profile goes after the header. */
export function tagPng(png: Buffer, icc: Uint8Array, name = 'profile'): Buffer {
  const body = Buffer.concat([Buffer.from(`iCCP${name}\0\0`, 'latin1'), deflateSync(icc)]);
  const chunk = Buffer.alloc(body.length + 8);
  chunk.writeUInt32BE(body.length - 4, 0);
  body.copy(chunk, 4);
  chunk.writeUInt32BE(crc(body) >>> 0, 4 + body.length);
  // Eight bytes of signature, twenty-five of header.
  return Buffer.concat([png.subarray(0, 33), chunk, png.subarray(33)]);
}

/** A JPEG that says what its colours mean: the profile goes before everything else (ICC.1, annex B.4). */
export function tagJpeg(jpeg: Buffer, icc: Uint8Array): Buffer {
  const MOST = 65_000;
  const parts = Math.ceil(icc.length / MOST);
  const segments = Array.from({ length: parts }, (_, i) => {
    const part = icc.subarray(i * MOST, (i + 1) * MOST);
    const head = Buffer.alloc(18);
    head.writeUInt16BE(0xffe2, 0);
    head.writeUInt16BE(16 + part.length, 2);
    head.write('ICC_PROFILE\0', 4, 'latin1');
    head[16] = i + 1;
    head[17] = parts;
    return Buffer.concat([head, part]);
  });
  return Buffer.concat([jpeg.subarray(0, 2), ...segments, jpeg.subarray(2)]);
}

let known: Promise<Buffer> | undefined;
/** The profile of Display P3 that comes with the decoder. */
export const displayP3Profile = (): Promise<Buffer> =>
  (known ??= sharp({ create: { width: 1, height: 1, channels: 3, background: '#000' } })
    .withIccProfile('p3')
    .png()
    .toBuffer()
    .then(async (png) => (await sharp(png).metadata()).icc!));

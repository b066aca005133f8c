/**
 * Takes out of a picture file what the camera and programs wrote beside its pixels (where it was taken,
 * by whom, previews), without touching the pixels. What the colours mean stays: profile, gamma, the
 * marks that say how colour is coded. Nothing where the file is not built as its format asks.
 */
export type Stripped = Buffer | undefined;

const JFIF = 0xe0;
const ICC = 0xe2;
const ADOBE = 0xee;
const COMMENT = 0xfe;
const SCAN = 0xda;
const END = 0xd9;
const hasNoLength = (marker: number): boolean => marker === 0x01 || (marker >= 0xd0 && marker <= 0xd8);

/** JPEG (ITU-T T.81): application segments and comments go, but for JFIF, ICC profile and Adobe's colour mark; so does whatever follows the end. */
export function stripJpeg(file: Buffer): Stripped {
  if (file.length < 4 || file.readUInt16BE(0) !== 0xffd8) return undefined;
  const kept: Buffer[] = [file.subarray(0, 2)];
  let at = 2;
  while (at + 4 <= file.length) {
    if (file[at] !== 0xff) return undefined;
    const marker = file[at + 1]!;
    if (marker === 0xff) {
      at++;
      continue;
    }
    if (marker === END) return Buffer.concat([...kept, file.subarray(at, at + 2)]);
    if (hasNoLength(marker)) {
      kept.push(file.subarray(at, at + 2));
      at += 2;
      continue;
    }
    const end = at + 2 + file.readUInt16BE(at + 2);
    if (end > file.length) return undefined;
    const isApplication = marker >= 0xe0 && marker <= 0xef;
    const speaks = (of: string): boolean => file.toString('latin1', at + 4, at + 4 + of.length) === of;
    const isKept = marker === JFIF ? speaks('JFIF\0') : marker === ICC ? speaks('ICC_PROFILE\0') : marker === ADOBE && speaks('Adobe');
    if ((!isApplication && marker !== COMMENT) || isKept) kept.push(file.subarray(at, end));
    at = end;
    if (marker !== SCAN) continue;
    // Coded light runs to the next marker that is none of its own.
    let next = end;
    while (next + 1 < file.length && (file[next] !== 0xff || file[next + 1] === 0 || (file[next + 1]! >= 0xd0 && file[next + 1]! <= 0xd7)))
      next++;
    if (next + 1 >= file.length) return undefined;
    kept.push(file.subarray(end, next));
    at = next;
  }
  if (at + 2 <= file.length && file.readUInt16BE(at) === 0xffd9) return Buffer.concat([...kept, file.subarray(at, at + 2)]);
  return undefined;
}

const PNG = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
/** Chunks that pixels and their meaning need (PNG, third edition, 11.3). */
const PNG_KEPT: ReadonlySet<string> = new Set([
  'IHDR',
  'PLTE',
  'IDAT',
  'IEND',
  'tRNS',
  'cHRM',
  'gAMA',
  'iCCP',
  'sBIT',
  'sRGB',
  'cICP',
  'bKGD',
  'pHYs',
]);

export function stripPng(file: Buffer): Stripped {
  if (!file.subarray(0, 8).equals(PNG)) return undefined;
  const kept: Buffer[] = [PNG];
  for (let at = 8; at + 12 <= file.length;) {
    const end = at + 12 + file.readUInt32BE(at);
    if (end > file.length) return undefined;
    const type = file.toString('latin1', at + 4, at + 8);
    if (PNG_KEPT.has(type)) kept.push(file.subarray(at, end));
    if (type === 'IEND') return Buffer.concat(kept);
    at = end;
  }
  return undefined;
}

const WEBP_KEPT: ReadonlySet<string> = new Set(['VP8 ', 'VP8L', 'VP8X', 'ALPH', 'ICCP']);
/** Bits of VP8X that say there is EXIF, XMP, animation (RFC 9649, 2.7). */
const EXIF_XMP_ANIMATED = 0x08 | 0x04 | 0x02;

export function stripWebp(file: Buffer): Stripped {
  if (file.length < 12 || file.toString('latin1', 0, 4) !== 'RIFF' || file.toString('latin1', 8, 12) !== 'WEBP') return undefined;
  const kept: Buffer[] = [];
  for (let at = 12; at + 8 <= file.length;) {
    const size = file.readUInt32LE(at + 4);
    const end = at + 8 + size + (size % 2);
    if (at + 8 + size > file.length) return undefined;
    const type = file.toString('latin1', at, at + 4);
    if (WEBP_KEPT.has(type)) {
      const chunk = Buffer.from(file.subarray(at, Math.min(end, file.length)));
      if (type === 'VP8X') chunk[8] = chunk[8]! & ~EXIF_XMP_ANIMATED;
      kept.push(chunk);
    }
    at = end;
  }
  if (kept.length === 0) return undefined;
  const body = Buffer.concat(kept);
  const head = Buffer.from(file.subarray(0, 12));
  head.writeUInt32LE(body.length + 4, 4);
  return Buffer.concat([head, body]);
}

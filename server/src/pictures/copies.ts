import {
  byteEncoder,
  D50_TO_D65,
  LOST_ALPHA,
  lostAt,
  SHOWN_SPACES,
  SRGB,
  WIDE,
  xyzToLinear,
  type DeviceTable,
  type Profile,
  type RgbSpace,
} from '@dusk/core';
import { PICTURE_LONGEST_SIDE, UPLOAD_MOST_PIXELS, type PictureSpace } from '@dusk/wire';
import sharp, { type Sharp } from 'sharp';
import type { Head } from './head.ts';
import { displayP3Profile, tagJpeg, tagPng } from './tag.ts';

/** A picture made smaller to be looked at, in a space that screens know. */
export interface Copy {
  readonly mime: 'image/jpeg' | 'image/png';
  readonly bytes: Buffer;
}

/** Longest side of the picture by which one is chosen among others, px. */
const SMALL = 480;
/** Rows that are converted before others have a turn. */
const ROWS = 32;

/** A part of a picture, in the pixels its file has. */
export interface Piece {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/**
 * Anything the decoder stumbles over counts: a colour read from a damaged place would be wrong.
 * @param piece in its own pixels; without it the whole, no larger than it is looked at
 */
function reading(file: Buffer, piece: Piece | undefined, more: { readonly ignoreIcc?: boolean } = {}): Sharp {
  const image = sharp(file, { failOn: 'warning', limitInputPixels: UPLOAD_MOST_PIXELS, sequentialRead: true, ...more }).autoOrient();
  if (piece) return image.extract({ ...piece });
  return image.resize({ width: PICTURE_LONGEST_SIDE, height: PICTURE_LONGEST_SIDE, fit: 'inside', withoutEnlargement: true });
}

/** A photo that is only made smaller bears being coded again; what is flat, or went through a profile, does not. */
const isLossless = ({ format, profile, isCmyk }: Head): boolean => format !== 'jpeg' || isCmyk || profile !== undefined;

async function encoded(image: Sharp, lossless: boolean, space: PictureSpace): Promise<Copy> {
  const bytes = await (lossless ? image.png({ compressionLevel: 4 }) : image.jpeg({ quality: 98, chromaSubsampling: '4:4:4' })).toBuffer();
  const tagged = space === 'srgb' ? bytes : (lossless ? tagPng : tagJpeg)(bytes, await displayP3Profile());
  return { mime: lossless ? 'image/png' : 'image/jpeg', bytes: tagged };
}

/** The space a picture is looked at in: the wider one where it is coded for more than sRGB holds. */
function shownSpaceOf(profile: Profile): PictureSpace {
  if (profile.kind === 'grey') return 'srgb';
  if (profile.kind === 'table') return profile.channels === 1 ? 'srgb' : 'display-p3';
  const m = profile.space.toXyz;
  // Its own primaries, in sRGB: outside where any falls below nothing.
  const isWide = [0, 1, 2].some((c) => Math.min(...xyzToLinear(SRGB, [m[c]!, m[3 + c]!, m[6 + c]!])) < -0.02);
  return isWide ? 'display-p3' : 'srgb';
}

const byteOf = byteEncoder();

interface Numbers {
  readonly data: Uint8Array | Uint16Array;
  readonly width: number;
  readonly height: number;
  readonly channels: number;
}

/** Numbers of a pixel to light in a shown space, coded. */
type Conversion = (data: Numbers['data'], at: number, out: Buffer, to: number) => void;

/** What the columns of a matrix from linear device light to a shown space's are. */
function columnsTo(to: RgbSpace, m: ArrayLike<number>): Float64Array {
  const columns = [0, 1, 2].map((c) => xyzToLinear(to, [m[c]!, m[3 + c]!, m[6 + c]!]));
  return Float64Array.from([0, 1, 2].flatMap((row) => columns.map((column) => column[row as 0 | 1 | 2])));
}

function byMatrix(from: RgbSpace, to: RgbSpace, isDeep: boolean): Conversion {
  const tables = isDeep ? from.curves.map((curve) => Float64Array.from({ length: 65_536 }, (_, v) => curve(v / 65_535))) : from.ofByte;
  const [red, green, blue] = tables as [Float64Array, Float64Array, Float64Array];
  const m = columnsTo(to, from.toXyz);
  return (data, at, out, place) => {
    const [r, g, b] = [red[data[at]!]!, green[data[at + 1]!]!, blue[data[at + 2]!]!];
    for (let k = 0; k < 3; k++) out[place + k] = byteOf(m[3 * k]! * r + m[3 * k + 1]! * g + m[3 * k + 2]! * b);
  };
}

function byTable(table: DeviceTable, channels: number, to: RgbSpace, isDeep: boolean): Conversion {
  const m = columnsTo(to, D50_TO_D65);
  const device = new Float64Array(channels);
  const xyz = new Float64Array(3);
  const full = isDeep ? 65_535 : 255;
  let last = '';
  return (data, at, out, place) => {
    let same = '';
    for (let i = 0; i < channels; i++) {
      device[i] = data[at + i]! / full;
      same += String.fromCharCode(data[at + i]!);
    }
    // Neighbours are often the same.
    if (same !== last) table(device, xyz);
    last = same;
    for (let k = 0; k < 3; k++) out[place + k] = byteOf(m[3 * k]! * xyz[0]! + m[3 * k + 1]! * xyz[1]! + m[3 * k + 2]! * xyz[2]!);
  };
}

function conversionOf(profile: Profile, to: RgbSpace, isDeep: boolean): Conversion {
  if (profile.kind === 'matrix') return byMatrix(profile.space, to, isDeep);
  if (profile.kind === 'table') return byTable(profile.table, profile.channels, to, isDeep);
  const full = isDeep ? 65_535 : 255;
  return (data, at, out, place) => void out.fill(byteOf(profile.curve(data[at]! / full)), place, place + 3);
}

/** The alpha of a pixel by its own numbers; inks have no top that light is lost at. */
function markOf(data: Numbers['data'], at: number, channels: number, full: number): number {
  if (channels === 4) return 255;
  let [most, least] = [data[at]!, data[at]!];
  for (let i = 1; i < channels; i++) {
    most = Math.max(most, data[at + i]!);
    least = Math.min(least, data[at + i]!);
  }
  const lost = lostAt(most, least, full);
  return lost ? LOST_ALPHA[lost] : 255;
}

/**
 * Converts a picture's numbers; other work has its turn between.
 * @param marked with an alpha that says what the file's own numbers have lost
 */
async function converted({ data, width, height, channels }: Numbers, conversion: Conversion, marked: boolean): Promise<Buffer> {
  const stride = marked ? 4 : 3;
  const out = Buffer.alloc(width * height * stride);
  const full = data instanceof Uint16Array ? 65_535 : 255;
  for (let row = 0; row < height; row += ROWS) {
    const end = Math.min(height, row + ROWS) * width;
    for (let pixel = row * width; pixel < end; pixel++) {
      conversion(data, pixel * channels, out, pixel * stride);
      if (marked) out[pixel * stride + 3] = markOf(data, pixel * channels, channels, full);
    }
    await new Promise((turn) => setImmediate(turn));
  }
  return out;
}

/** A picture's numbers as its file has them. */
async function deviceNumbers(file: Buffer, { isDeep, isCmyk, profile }: Head, piece: Piece | undefined): Promise<Numbers> {
  const image = reading(file, piece, { ignoreIcc: true });
  const isGrey = profile?.kind === 'grey' || (profile?.kind === 'table' && profile.channels === 1);
  const shaped = isCmyk
    ? image.pipelineColourspace('cmyk').toColourspace('cmyk')
    : image.flatten({ background: '#ffffff' }).toColourspace(isGrey ? (isDeep ? 'grey16' : 'b-w') : isDeep ? 'rgb16' : 'srgb');
  const { data, info } = await shaped.raw(isDeep ? { depth: 'ushort' } : {}).toBuffer({ resolveWithObject: true });
  const numbers = isDeep ? new Uint16Array(data.buffer, data.byteOffset, data.byteLength / 2) : data;
  return { data: numbers, width: info.width, height: info.height, channels: info.channels };
}

type Seen = Copy & { readonly space: PictureSpace };

/** A picture, or a piece of it, in a space that screens know. */
async function inShownSpace(file: Buffer, head: Head, lossless: boolean, piece?: Piece, wide = false): Promise<Seen> {
  const { profile, isDeep } = head;
  if (!profile) {
    const image = reading(file, piece).flatten({ background: '#ffffff' }).toColourspace('srgb');
    return { space: 'srgb', ...(await encoded(image, lossless, 'srgb')) };
  }
  const space = shownSpaceOf(profile);
  const numbers = await deviceNumbers(file, head, piece);
  const bytes = await converted(numbers, conversionOf(profile, wide ? WIDE : SHOWN_SPACES[space]!, isDeep), wide);
  const image = sharp(bytes, { raw: { width: numbers.width, height: numbers.height, channels: wide ? 4 : 3 } });
  // What is only read says nowhere what it means: who asked for it knows.
  return { space, ...(await encoded(image, lossless, wide ? 'srgb' : space)) };
}

/**
 * A picture as it is looked at: upright, in sRGB or Display P3 (then with its profile), at most
 * {@link PICTURE_LONGEST_SIDE} along its longer side. Its profile is reckoned through here, tables by the
 * relative colorimetric intent without black point compensation; CMYK that brings none goes by usual inks.
 */
export const workingCopy = (file: Buffer, head: Head): Promise<Seen> => inShownSpace(file, head, isLossless(head));

/** Whether a picture is of colours that the space of its copy may not hold. */
export const mayBeWider = ({ profile }: Head): boolean => profile !== undefined && shownSpaceOf(profile) !== 'srgb';

/** A piece of a picture in its own pixels, as its file has them, in the space of its copy; or in the wide one, where it may be wider. */
export const pieceOf = (file: Buffer, head: Head, piece: Piece, wide: boolean): Promise<Seen> =>
  inShownSpace(file, head, true, piece, wide && mayBeWider(head));

/** Whether a picture can be looked at as it came: no larger than a copy would be, upright, of eight bits, in sRGB. */
export const needsNoCopy = ({ format, width, height, orientation, isDeep, isCmyk, hasAlpha, profile }: Head): boolean =>
  (format === 'jpeg' || format === 'png') &&
  Math.max(width, height) <= PICTURE_LONGEST_SIDE &&
  orientation === 1 &&
  !isDeep &&
  !isCmyk &&
  !hasAlpha &&
  profile === undefined;

/** The picture by which one is chosen among others. */
export async function smallCopy(copy: Buffer): Promise<Copy> {
  const bytes = await sharp(copy)
    .resize({ width: SMALL, height: SMALL, fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality: 82 })
    .toBuffer();
  return { mime: 'image/jpeg', bytes };
}

import { CraftError, readProfile, type Profile } from '@dusk/core';
import { UPLOAD_MOST_PIXELS } from '@dusk/wire';
import sharp, { type Metadata } from 'sharp';
import { ProblemError } from '../refusing/problems.ts';

/** Formats that are kept, by the name painters know them by. */
export const KEPT_FORMATS = { jpeg: 'JPEG', png: 'PNG', webp: 'WebP', avif: 'AVIF', tiff: 'TIFF' } as const;
export type KeptFormat = keyof typeof KEPT_FORMATS;
const KEPT_NAMES = 'JPEG, PNG, WebP, AVIF or TIFF';

/** Formats that are told from damage, and not kept. */
const OTHER_FORMATS: Readonly<Record<string, string>> = {
  gif: 'GIF',
  svg: 'SVG',
  pdf: 'PDF',
  jp2: 'JPEG 2000',
  jxl: 'JPEG XL',
  magick: 'raw',
  raw: 'raw',
};

/** Longest side that is read. */
const LONGEST = 30_000;

/** What the beginning of a picture file says. */
export interface Head {
  readonly format: KeptFormat;
  /** Upright, in pixels. */
  readonly width: number;
  readonly height: number;
  /** As the file has it, 1–8 (EXIF). */
  readonly orientation: number;
  readonly isDeep: boolean;
  readonly isCmyk: boolean;
  readonly hasAlpha: boolean;
  readonly icc: Buffer | undefined;
  readonly profile: Profile | undefined;
}

const unreadable = (name = 'picture'): ProblemError =>
  new ProblemError(
    422,
    'Not a picture',
    name === 'picture'
      ? `This file is not a whole ${KEPT_NAMES} picture. Nothing was kept; choose another.`
      : `This ${name} picture is damaged or not whole. Nothing was kept; choose another, or save it anew.`,
  );

/** That a file of a format is damaged, as a sentence. */
export const damaged = (format: KeptFormat): ProblemError => unreadable(KEPT_FORMATS[format]);

function formatOf({ format, compression }: Metadata): KeptFormat {
  if (format === 'heif') {
    if (compression === 'av1') return 'avif';
    throw new ProblemError(
      422,
      'Another format',
      `This is a HEIC file; pictures are kept as ${KEPT_NAMES}. Save it as one of these (telephones can be set to) and bring it again. Nothing was kept.`,
    );
  }
  if (format in KEPT_FORMATS) return format as KeptFormat;
  const other = OTHER_FORMATS[format];
  if (!other) throw unreadable();
  throw new ProblemError(
    422,
    'Another format',
    `This is a ${other} file; pictures are kept as ${KEPT_NAMES}. Save it as one of these and bring it again. Nothing was kept.`,
  );
}

/** Whether a PNG brings a profile: its decoder says nothing of one that it finds broken. */
function bringsProfile(png: Buffer): boolean {
  const pixels = png.indexOf('IDAT');
  const at = png.indexOf('iCCP');
  return at >= 0 && (pixels < 0 || at < pixels);
}

function profileOf(file: Buffer, icc: Buffer | undefined, format: KeptFormat): Profile | undefined {
  try {
    if (icc) return readProfile(icc);
    if (format !== 'png' || !bringsProfile(file)) return undefined;
    throw new CraftError('input', 'The profile is broken.');
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    throw new ProblemError(
      422,
      'Broken profile',
      `The colour profile in this ${KEPT_FORMATS[format]} picture is broken, so its colours cannot be known. Save it with sRGB, or without a profile, and bring it again. Nothing was kept.`,
    );
  }
}

/**
 * Reads what kind of picture a file is, before any of its pixels.
 * @throws ProblemError, naming the format, for what cannot be kept
 */
export async function readHead(file: Buffer): Promise<Head> {
  const meta = await sharp(file, { limitInputPixels: false, failOn: 'warning' })
    .metadata()
    .catch(() => undefined);
  if (!meta) throw unreadable();
  const format = formatOf(meta);
  const { width, height } = meta.autoOrient;
  if (width * height > UPLOAD_MOST_PIXELS || Math.max(width, height) > LONGEST)
    throw new ProblemError(
      413,
      'Too large',
      `This ${KEPT_FORMATS[format]} picture is ${width} by ${height} pixels; at most ${UPLOAD_MOST_PIXELS / 1e6} million in all can be read, and ${LONGEST} along a side. Save it smaller and try again.`,
    );
  if ((meta.pages ?? 1) > 1 && format !== 'avif' && format !== 'tiff')
    throw new ProblemError(
      422,
      'Moving picture',
      `This ${KEPT_FORMATS[format]} file holds ${meta.pages} pictures in a row. Save one of them by itself and bring it again. Nothing was kept.`,
    );
  return {
    format,
    width,
    height,
    orientation: meta.orientation ?? 1,
    isDeep: meta.depth === 'ushort' || meta.depth === 'float' || meta.depth === 'uint',
    isCmyk: meta.space === 'cmyk',
    hasAlpha: meta.hasAlpha,
    icc: meta.icc,
    profile: profileOf(file, meta.icc, format),
  };
}

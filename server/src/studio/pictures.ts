import { createHash } from 'node:crypto';
import { PICTURE_LONGEST_SIDE, UPLOAD_MOST_PIXELS, type PictureDto } from '@dusk/wire';
import sharp from 'sharp';
import type { EntityManager } from 'typeorm';
import { Picture, PictureBytes } from '../entities/index.ts';
import { notFound, ProblemError } from '../problems.ts';
import { now } from './work.ts';

/** A picture ready to be kept: upright, sRGB, no larger than needed, without metadata. */
export interface NormalPicture {
  readonly mime: 'image/jpeg' | 'image/png';
  readonly width: number;
  readonly height: number;
  readonly bytes: Buffer;
}

/** Formats that browsers and cameras write and this program does not keep, as their makers call them. */
const OTHER_FORMATS: Readonly<Record<string, string>> = { webp: 'WebP', heif: 'AVIF or HEIC', tiff: 'TIFF', gif: 'GIF', svg: 'SVG', pdf: 'PDF', jp2: 'JPEG 2000', jxl: 'JPEG XL' };

const unreadable = (): ProblemError =>
  new ProblemError(422, 'Not a picture', 'This file is not a whole JPEG or PNG picture. Nothing was kept; choose another.');

/**
 * Brings an upload to the product's one form: turned upright by its orientation, its embedded
 * profile converted to sRGB, at most {@link PICTURE_LONGEST_SIDE} on the long side, metadata left out.
 * PNG stays lossless; a JPEG is kept fine and without chroma subsampling, since colours are read from it.
 * @throws ProblemError when it is no whole JPEG or PNG, or holds too many pixels
 */
export async function normalise(upload: Buffer): Promise<NormalPicture> {
  // Anything the decoder stumbles over counts: a colour read from a damaged place would be wrong.
  const options = { failOn: 'warning', limitInputPixels: UPLOAD_MOST_PIXELS } as const;
  const head = await sharp(upload, { ...options, limitInputPixels: false })
    .metadata()
    .catch(() => undefined);
  const other = head && OTHER_FORMATS[head.format];
  if (other) throw new ProblemError(422, 'Another format', `This is a ${other} file; pictures are kept as JPEG or PNG. Save it as one of these and bring it again. Nothing was kept.`);
  if (!head || (head.format !== 'jpeg' && head.format !== 'png')) throw unreadable();
  if (head.width * head.height > UPLOAD_MOST_PIXELS)
    throw new ProblemError(413, 'Too large', `This picture is ${head.width} by ${head.height} pixels; at most ${UPLOAD_MOST_PIXELS / 1e6} million in all can be read. Save it smaller and try again.`);
  const image = sharp(upload, options)
    .autoOrient()
    .resize({ width: PICTURE_LONGEST_SIDE, height: PICTURE_LONGEST_SIDE, fit: 'inside', withoutEnlargement: true })
    .flatten({ background: '#ffffff' })
    .toColourspace('srgb');
  const encoded = head.format === 'png' ? image.png() : image.jpeg({ quality: 94, chromaSubsampling: '4:4:4' });
  try {
    const { data, info } = await encoded.toBuffer({ resolveWithObject: true });
    return { mime: head.format === 'png' ? 'image/png' : 'image/jpeg', width: info.width, height: info.height, bytes: data };
  } catch {
    throw unreadable();
  }
}

/** Keeps a picture under the hash of its bytes; one that is there already is not kept twice. */
export async function keepPicture(db: EntityManager, picture: NormalPicture): Promise<{ readonly kept: PictureDto; readonly known: boolean }> {
  const id = createHash('sha256').update(picture.bytes).digest('hex');
  const { mime, width, height, bytes } = picture;
  const known = await db.existsBy(Picture, { id });
  if (!known) {
    await db.insert(Picture, { id, mime, width, height, createdAt: now() });
    await db.insert(PictureBytes, { pictureId: id, bytes });
  }
  return { kept: { id, width, height }, known };
}

/** A picture with its bytes. */
export async function pictureBytes(db: EntityManager, id: string): Promise<{ mime: string; bytes: Buffer }> {
  const row = await db.findOne(PictureBytes, { where: { pictureId: id }, relations: { picture: true } });
  if (!row) throw notFound('picture');
  return { mime: row.picture!.mime, bytes: row.bytes };
}

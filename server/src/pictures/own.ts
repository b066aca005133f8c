import sharp from 'sharp';
import { UPLOAD_MOST_PIXELS, type PictureSpace } from '@dusk/wire';
import { ProblemError } from '../refusing/problems.ts';
import { needsNoCopy, smallCopy, workingCopy, type Copy } from './copies.ts';
import { damaged, readHead, type Head } from './head.ts';
import { stripJpeg, stripPng, stripWebp } from './strip.ts';

/** A picture ready to be kept: its own pixels as they came, and copies to be looked at. */
export interface NewPicture {
  readonly mime: string;
  /** Upright, in the picture's own pixels. */
  readonly width: number;
  readonly height: number;
  /** How the kept file is to be turned, 1–8 (EXIF): its own mark went with what the camera wrote. */
  readonly orientation: number;
  readonly space: PictureSpace;
  /** What its colours rest on, for the painter: the profile's name, CMYK. */
  readonly colours: string;
  readonly bytes: Buffer;
  /** Nothing where its own bytes can be looked at as they are. */
  readonly working: Copy | undefined;
  readonly small: Copy;
}

const MIMES = { jpeg: 'image/jpeg', png: 'image/png', webp: 'image/webp', avif: 'image/avif', tiff: 'image/tiff' } as const;

interface Own {
  readonly bytes: Buffer;
  readonly mime: string;
  readonly orientation: number;
}

/**
 * A picture without what was written beside its pixels. JPEG, PNG and WebP lose their segments; TIFF and
 * AVIF are written anew without loss, profile and depth kept (AVIF as PNG), upright already.
 */
async function ownPixels(file: Buffer, head: Head): Promise<Own> {
  const { format } = head;
  if (format === 'jpeg' || format === 'png' || format === 'webp') {
    const bytes = { jpeg: stripJpeg, png: stripPng, webp: stripWebp }[format](file);
    if (!bytes) throw damaged(format);
    return { bytes, mime: MIMES[format], orientation: head.orientation };
  }
  const image = sharp(file, { failOn: 'warning', limitInputPixels: UPLOAD_MOST_PIXELS }).autoOrient().keepIccProfile();
  const deep = head.isDeep ? image.toColourspace('rgb16') : head.isCmyk ? image.pipelineColourspace('cmyk').toColourspace('cmyk') : image;
  const isPng = format === 'avif';
  const bytes = await (isPng ? deep.png() : deep.tiff({ compression: 'deflate', predictor: 'horizontal' })).toBuffer();
  return { bytes, mime: isPng ? MIMES.png : MIMES.tiff, orientation: 1 };
}

function coloursOf({ profile, isCmyk, isDeep }: Head): string {
  const depth = isDeep ? '16 bits' : '8 bits';
  if (isCmyk) return `CMYK, ${profile?.name ?? 'no profile: usual inks taken for it'}`;
  return `${profile?.name ?? 'no profile: taken for sRGB'}, ${depth}`;
}

/**
 * Makes an upload ready to be kept.
 * @throws ProblemError, in a sentence that names the format, for what is no whole picture of one that is kept
 */
export async function readPicture(file: Buffer): Promise<NewPicture> {
  const head = await readHead(file);
  try {
    // Looked through to its end in any case: a file that breaks off in the middle is not kept.
    const copy = await workingCopy(file, head);
    const small = await smallCopy(copy.bytes);
    const { bytes, mime, orientation } = await ownPixels(file, head);
    const { width, height } = head;
    const working = needsNoCopy(head) ? undefined : copy;
    return { mime, width, height, orientation, space: copy.space, colours: coloursOf(head), bytes, working, small };
  } catch (cause) {
    if (cause instanceof ProblemError) throw cause;
    throw damaged(head.format);
  }
}

let last: Promise<unknown> = Promise.resolve();

/** Does heavy work on pictures one after another: memory then is bounded by the largest, not by how many are sent at once. */
export function oneAtATime<T>(work: () => Promise<T>): Promise<T> {
  const next = last.then(work, work);
  last = next.catch(() => undefined);
  return next;
}

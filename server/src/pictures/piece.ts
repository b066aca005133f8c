import { PIECE_LONGEST_SIDE } from '@dusk/wire';
import sharp from 'sharp';
import { ProblemError } from '../refusing/problems.ts';
import { mayBeWider, pieceOf, type Copy, type Piece } from './copies.ts';
import { readHead } from './head.ts';
import { displayP3Profile, tagPng } from './tag.ts';

/** How a file's rows are turned to stand upright, by its orientation (EXIF 1–8): quarter turns clockwise, then mirrored left to right. */
const TURNS: Readonly<Record<number, readonly [quarters: number, mirrored: boolean]>> = {
  1: [0, false],
  2: [0, true],
  3: [2, false],
  4: [2, true],
  5: [1, true],
  6: [1, false],
  7: [3, true],
  8: [3, false],
};

/** Where a piece of the upright picture lies in the file's own rows. */
function inFile(piece: Piece, orientation: number, width: number, height: number): Piece {
  const [quarters, mirrored] = TURNS[orientation] ?? TURNS[1]!;
  let { left, top } = piece;
  let [w, h] = [piece.width, piece.height];
  let [wide, high] = [width, height];
  if (mirrored) left = wide - left - w;
  // Each quarter turn clockwise is taken back: what was left is at the foot.
  for (let i = 0; i < quarters; i++) {
    [left, top, w, h] = [top, wide - left - w, h, w];
    [wide, high] = [high, wide];
  }
  return { left, top, width: w, height: h };
}

/**
 * A piece of a picture in its own pixels, upright, in the space of its copy; a PNG.
 * @param wide in core's wide space instead, where the picture's colours may be stronger than that of its copy holds
 * @param piece in the upright picture's pixels, at most {@link PIECE_LONGEST_SIDE} a side
 * @param orientation how the file is to be turned (EXIF 1–8): its own mark is gone
 * @throws ProblemError where it does not lie within the picture
 */
export async function readPiece(
  file: Buffer,
  orientation: number,
  width: number,
  height: number,
  piece: Piece,
  wide = false,
): Promise<Copy> {
  const isWithin =
    Object.values(piece).every(Number.isInteger) &&
    piece.left >= 0 &&
    piece.top >= 0 &&
    Math.min(piece.width, piece.height) >= 1 &&
    Math.max(piece.width, piece.height) <= PIECE_LONGEST_SIDE &&
    piece.left + piece.width <= width &&
    piece.top + piece.height <= height;
  if (!isWithin)
    throw new ProblemError(
      422,
      'No piece of it',
      `A piece lies within its picture (${width} by ${height} pixels) and has at most ${PIECE_LONGEST_SIDE} pixels a side.`,
    );
  const head = await readHead(file);
  const isWide = wide && mayBeWider(head);
  const found = await pieceOf(file, head, inFile(piece, orientation, width, height), isWide);
  const [quarters, mirrored] = TURNS[orientation] ?? TURNS[1]!;
  if (quarters === 0 && !mirrored) return found;
  const rotated = await sharp(found.bytes, { ignoreIcc: true })
    .rotate(90 * quarters)
    .png()
    .toBuffer();
  const turned = await sharp(rotated).flop(mirrored).png().toBuffer();
  return { mime: 'image/png', bytes: isWide || found.space === 'srgb' ? turned : tagPng(turned, await displayP3Profile()) };
}

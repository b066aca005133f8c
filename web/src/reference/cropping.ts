// A crop that is drawn within what is seen, as a crop of the whole picture.

/** A rectangle; in px, or in shares of what it lies in. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** So narrow a crop, in shares of the picture, is the least. */
const LEAST = 0.01;

/**
 * @param drawn px of what is seen
 * @param seen how wide that is, px; what of the turned picture it shows, in shares; whether it is seen mirrored
 * @param whole sides of the turned picture, px
 * @returns in shares of the turned picture, as it is when it is not mirrored
 */
export function cropOfWhole(
  drawn: Box,
  seen: { readonly width: number; readonly crop: Box | undefined; readonly isMirrored: boolean },
  [width, height]: readonly [number, number],
): Box {
  // What is seen mirrored is cut from the other side.
  const left = seen.isMirrored ? seen.width - drawn.x - drawn.width : drawn.x;
  return {
    x: (seen.crop?.x ?? 0) + left / width,
    y: (seen.crop?.y ?? 0) + drawn.y / height,
    width: Math.max(LEAST, drawn.width / width),
    height: Math.max(LEAST, drawn.height / height),
  };
}

// A made-up photo for tests that begin with none.
import sharp from 'sharp';

/** A made-up photo of eight fields, warm and cool, dark to light. */
export async function photo(): Promise<Buffer> {
  const [width, height] = [960, 640];
  const colours = ['#2b2320', '#5a4033', '#7d5a3c', '#a9825a', '#5d6a70', '#8a9690', '#c9b48f', '#e3dccb'];
  const fields = colours.map((background, i) => ({ i, background }));
  const tiles = await Promise.all(
    fields.map(({ background }) =>
      sharp({ create: { width: width / 4, height: height / 2, channels: 3, background } })
        .png()
        .toBuffer(),
    ),
  );
  return sharp({ create: { width, height, channels: 3, background: '#808080' } })
    .composite(tiles.map((input, i) => ({ input, left: (i % 4) * (width / 4), top: Math.floor(i / 4) * (height / 2) })))
    .jpeg({ quality: 95 })
    .toBuffer();
}

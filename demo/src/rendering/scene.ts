export type Rgb = readonly [r: number, g: number, b: number];
export type Vec = readonly [x: number, y: number, z: number];

/** Surface of a thing at a point: linear-light colour, and how it reflects. */
export interface Surface {
  readonly colour: Rgb;
  /** Share of light mirrored at normal incidence; metals mirror in their colour. */
  readonly mirror?: number;
  readonly metal?: boolean;
  /** Spread of the mirrored light. */
  readonly rough?: number;
}

/** A thing: its distance field, a sphere that holds it (to skip it early), and its surface. */
export interface Thing {
  readonly bound?: readonly [x: number, y: number, z: number, r: number];
  readonly distance: (x: number, y: number, z: number) => number;
  readonly surface: (x: number, y: number, z: number) => Surface;
}

export interface Light {
  /** A lamp at a place, or the sun from a direction. */
  readonly kind: 'lamp' | 'sun';
  readonly at: Vec;
  /** Radius of the lamp, or of the sun as seen (tangent). */
  readonly size: number;
  readonly power: Rgb;
}

export interface Scene {
  readonly name: string;
  readonly eye: Vec;
  readonly look: Vec;
  /** Tangent of half the field of view, across the height. */
  readonly zoom: number;
  readonly lights: readonly Light[];
  readonly things: readonly Thing[];
  /** Light that arrives from where nothing is. */
  readonly sky: (x: number, y: number, z: number) => Rgb;
  readonly exposure: number;
}

import { Painting, Picture, PictureBytes, Reference } from './paintings.ts';
import { Palette, PaletteTube } from './palettes.ts';
import { Pile, PileMeasure } from './piles.ts';
import { Settings } from './settings.ts';
import { Tube, TubeState } from './tubes.ts';

export { Painting, Palette, PaletteTube, Picture, PictureBytes, Pile, PileMeasure, Reference, Settings, Tube, TubeState };

export const ENTITIES = [Tube, TubeState, Palette, PaletteTube, Painting, Picture, PictureBytes, Reference, Pile, PileMeasure, Settings];

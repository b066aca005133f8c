export { makeApp } from './app.ts';
export { startServer, type Running } from './start.ts';
export { openStudio, STUDIO_FILE, type Studio } from './studio/studio.ts';
export { addTube } from './studio/catalogue.ts';
export { addPalette } from './studio/palettes.ts';
export { addPainting, addReference, allPaintings, hasWork } from './studio/paintings.ts';
export { addPile } from './studio/piles.ts';
export { normalise } from './studio/pictures.ts';
export { allTubes } from './studio/tubes.ts';

export { makeApp } from './app.ts';
export { startServer, type Running } from './start.ts';
export { openStudio, STUDIO_FILE, type Studio } from './studio/studio.ts';
export { addTube } from './studio/catalogue.ts';
export { makeChange } from './studio/changes.ts';
export { pilesOf } from './studio/piles.ts';
export { hasWork } from './studio/paintings.ts';
export { keepPicture, normalise } from './studio/pictures.ts';
export { tubeRows } from './studio/tubes.ts';

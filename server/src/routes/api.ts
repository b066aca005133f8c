import { isUUID } from 'class-validator';
import {
  NewPainting,
  NewPalette,
  NewPile,
  PaintingChange,
  PaletteChange,
  PileChange,
  readAs,
  SettingsChange,
  UPLOAD_MOST_BYTES,
} from '@dusk/wire';
import { Router, type Request } from 'express';
import multer from 'multer';
import { notFound, ProblemError } from '../problems.ts';
import * as paintings from '../studio/paintings.ts';
import * as palettes from '../studio/palettes.ts';
import * as piles from '../studio/piles.ts';
import { normalise } from '../studio/pictures.ts';
import { changeSettings, readSettings } from '../studio/settings.ts';
import type { Studio } from '../studio/studio.ts';
import { allTubes } from '../studio/tubes.ts';

/** @throws ProblemError when the id in the path cannot be one. */
function idIn(request: Request, what: string): string {
  const { id } = request.params;
  if (typeof id !== 'string' || !isUUID(id)) throw notFound(what);
  return id;
}

const uploads = multer({ storage: multer.memoryStorage(), limits: { fileSize: UPLOAD_MOST_BYTES, files: 1, fields: 2 } });

/** A file's name as the painter knows it, without its ending; browsers send it as UTF-8 read as Latin-1. */
function pictureName(file: Express.Multer.File): string {
  const name = Buffer.from(file.originalname, 'latin1').toString('utf8');
  return name.replace(/\.[^.]*$/, '').slice(0, 120) || 'picture';
}

/** The routes under `/api`: each reads its request, makes one change or none, and answers. */
export function apiRoutes({ look, change }: Studio): Router {
  const api = Router();

  api.get('/settings', async (_, response) => void response.json(await look(readSettings)));
  api.patch('/settings', async (request, response) => {
    const sent = readAs(SettingsChange, request.body);
    response.json(await change((t) => changeSettings(t, sent)));
  });

  api.get('/tubes', async (_, response) => void response.json(await look(allTubes)));

  api.get('/palettes', async (_, response) => void response.json(await look(palettes.allPalettes)));
  api.post('/palettes', async (request, response) => {
    const sent = readAs(NewPalette, request.body);
    response.status(201).json(await change((t) => palettes.addPalette(t, sent)));
  });
  api.patch('/palettes/:id', async (request, response) => {
    const id = idIn(request, 'palette');
    const sent = readAs(PaletteChange, request.body);
    response.json(await change((t) => palettes.changePalette(t, id, sent)));
  });
  api.delete('/palettes/:id', async (request, response) => {
    const id = idIn(request, 'palette');
    await change((t) => palettes.deletePalette(t, id));
    response.status(204).end();
  });
  api.post('/palettes/:id/restore', async (request, response) => {
    const id = idIn(request, 'palette');
    response.json(await change((t) => palettes.restorePalette(t, id)));
  });

  api.get('/paintings', async (_, response) => void response.json(await look(paintings.allPaintings)));
  api.post('/paintings', async (request, response) => {
    const sent = readAs(NewPainting, request.body);
    response.status(201).json(await change((t) => paintings.addPainting(t, sent)));
  });
  api.patch('/paintings/:id', async (request, response) => {
    const id = idIn(request, 'painting');
    const sent = readAs(PaintingChange, request.body);
    response.json(await change((t) => paintings.changePainting(t, id, sent)));
  });
  api.delete('/paintings/:id', async (request, response) => {
    const id = idIn(request, 'painting');
    await change((t) => paintings.deletePainting(t, id));
    response.status(204).end();
  });
  api.post('/paintings/:id/restore', async (request, response) => {
    const id = idIn(request, 'painting');
    response.json(await change((t) => paintings.restorePainting(t, id)));
  });

  api.post('/paintings/:id/references', uploads.single('picture'), async (request, response) => {
    const id = idIn(request, 'painting');
    await look((t) => paintings.paintingOf(t, id));
    const { file } = request;
    if (!file) throw new ProblemError(422, 'No picture', 'Send one JPEG or PNG picture, in the field "picture".');
    if (file.size === 0) throw new ProblemError(422, 'Not a picture', 'This file is empty. Nothing was kept; choose another.');
    const picture = await normalise(file.buffer);
    response.status(201).json(await change((t) => paintings.addReference(t, id, picture, pictureName(file))));
  });
  api.delete('/references/:id', async (request, response) => {
    const id = idIn(request, 'reference');
    await change((t) => paintings.deleteReference(t, id));
    response.status(204).end();
  });
  api.post('/references/:id/restore', async (request, response) => {
    const id = idIn(request, 'reference');
    await change((t) => paintings.restoreReference(t, id));
    response.status(204).end();
  });
  api.get('/pictures/:id', async (request, response) => {
    const { mime, bytes } = await look((t) => paintings.pictureBytes(t, String(request.params['id'])));
    response.set('Cache-Control', 'private, max-age=31536000, immutable').type(mime).send(bytes);
  });

  api.get('/paintings/:id/piles', async (request, response) => {
    const id = idIn(request, 'painting');
    response.json(await look((t) => piles.pilesOf(t, id)));
  });
  api.post('/paintings/:id/piles', async (request, response) => {
    const id = idIn(request, 'painting');
    const sent = readAs(NewPile, request.body);
    response.status(201).json(await change((t) => piles.addPile(t, id, sent)));
  });
  api.patch('/piles/:id', async (request, response) => {
    const id = idIn(request, 'pile');
    const sent = readAs(PileChange, request.body);
    response.json(await change((t) => piles.changePile(t, id, sent)));
  });
  api.delete('/piles/:id', async (request, response) => {
    const id = idIn(request, 'pile');
    await change((t) => piles.deletePile(t, id));
    response.status(204).end();
  });
  api.post('/piles/:id/restore', async (request, response) => {
    const id = idIn(request, 'pile');
    response.json(await change((t) => piles.restorePile(t, id)));
  });

  api.use(() => {
    throw new ProblemError(404, 'Not found', 'There is nothing at this address.');
  });
  return api;
}

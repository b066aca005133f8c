import { mkdtempSync, rmSync } from 'node:fs';
import { readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { isUUID } from 'class-validator';
import {
  BACKUP,
  CHANGES,
  COPIES,
  EVENTS,
  LOOKED,
  Looked,
  OUTING,
  OWN_PIXELS,
  PICTURES,
  PIECE,
  READS,
  SMALL,
  UPLOAD_MOST_BYTES,
  readAs,
  type CopiesDto,
  type ReadName,
} from '@dusk/wire';
import { Router, type Request } from 'express';
import { copyName } from '../file/copies.ts';
import { copiesOf } from '../settings/daily.ts';
import { isForHere } from '../refusing/isForHere.ts';
import { isFromElsewhere } from '../refusing/localOnly.ts';
import { notFound, ProblemError } from '../refusing/problems.ts';
import { bringRest } from '../cards/bringing.ts';
import { newestSeq } from '../change/newestSeq.ts';
import { logAt, makeChange } from '../studio/changes.ts';
import { cardRoutes } from './cards.ts';
import { oneAtATime, readPicture } from '../pictures/own.ts';
import { readPiece } from '../pictures/piece.ts';
import { keepPicture, ownFile, ownPixels, smallPixels, workingPixels } from '../pictures/pictures.ts';
import { outingOf, outingPage } from '../sheets/outing.ts';
import { READING } from '../studio/reading.ts';
import type { Studio } from '../change/studio.ts';
import { changeFrom } from './change.ts';
import { eventsOf } from './events.ts';
import { KeptAnswers } from './kept.ts';
import { uploads } from './uploads.ts';

/** @throws ProblemError when the id in the path cannot be one. */
function idIn({ params: { id } }: Request): string {
  if (typeof id !== 'string' || !isUUID(id)) throw notFound('row');
  return id;
}

/** Open windows hear of a change a moment after it was answered. */
const TELL_MS = 30;

/** Reads that say the same as long as nothing was changed. */
const FOLLOWS_FROM_CHANGES: ReadonlySet<ReadName> = new Set(['studio', 'painting']);

/** The routes under `/api`: the tables of reads and operations, served, and pictures by what they hold. `pages` is the folder of the built interface. */
export function apiRoutes(studio: Studio, pages?: string): Router {
  const { look, change } = studio;
  const api = Router();
  const kept = new KeptAnswers();

  for (const [name, path] of Object.entries(READS) as [ReadName, string][])
    api.get(path, async (request, response) => {
      const id = path.includes(':id') ? idIn(request) : '';
      const text = await look(async (db) => {
        const write = async (): Promise<string> => {
          const answer = (await READING[name](db, id)) as { readonly seq?: number };
          const log = answer.seq === undefined ? null : await logAt(db, answer.seq);
          return JSON.stringify({ ...answer, ...(log !== null && { log }) });
        };
        return FOLLOWS_FROM_CHANGES.has(name) ? kept.of(`${name} ${id}`, await newestSeq(db), write) : write();
      });
      response.type('json').send(text);
    });

  const forHere = isForHere(studio);
  api.post(CHANGES, forHere, async (request, response) => {
    const { answer, isNew } = await makeChange(studio, changeFrom(request.body));
    response.status(isNew ? 201 : 200).json(answer);
    // Whoever made it is answered before all are told.
    if (isNew) setTimeout(() => studio.hearing.tell(answer), TELL_MS);
    for (const { id } of isNew ? (answer.rows.bringings ?? []) : [])
      void bringRest(studio, id).catch((cause: unknown) => request.log.error({ err: cause }, 'a file was not brought in whole'));
  });

  api.post(PICTURES, forHere, uploads(UPLOAD_MOST_BYTES).single('picture'), async ({ file }, response) => {
    if (!file) throw new ProblemError(422, 'No picture', 'Send one picture, in the field "picture".');
    try {
      if (file.size === 0) throw new ProblemError(422, 'Not a picture', 'This file is empty. Nothing was kept; choose another.');
      const { kept, known } = await oneAtATime(async () => {
        const picture = await readPicture(await readFile(file.path));
        return change((db) => keepPicture(db, picture, studio.now()));
      });
      response.status(known ? 200 : 201).json(kept);
    } finally {
      await rm(file.path, { force: true });
    }
  });
  for (const [path, pixels] of [
    ['', workingPixels],
    [OWN_PIXELS, ownPixels],
    [SMALL, smallPixels],
  ] as const)
    api.get(`${PICTURES}/:id${path}`, async (request, response) => {
      const { mime, bytes } = await look((db) => pixels(db, String(request.params['id'])));
      response.set('Cache-Control', 'private, max-age=31536000, immutable').type(mime).send(bytes);
    });

  api.get(`${PICTURES}/:id${PIECE}`, async ({ params, query }, response) => {
    const { bytes, picture } = await look((db) => ownFile(db, params.id));
    const [left, top, width, height] = ['left', 'top', 'width', 'height'].map((side) => Number(query[side])) as [
      number,
      number,
      number,
      number,
    ];
    const piece = await readPiece(
      bytes,
      picture.orientation,
      picture.width,
      picture.height,
      { left, top, width, height },
      query['wide'] === '1',
    );
    response.set('Cache-Control', 'private, max-age=3600').type(piece.mime).send(piece.bytes);
  });

  api.use(cardRoutes(studio));

  api.get(`/paintings/:id${OUTING}`, async (request, response) => {
    const id = idIn(request);
    const finish = await look((db) => outingOf(db, id, studio.now()));
    const outing = await finish();
    const name = `${outing.title.replace(/[^\p{L}\p{N} ,-]/gu, '_').slice(0, 80)}, to go out.html`;
    response
      .set('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`)
      .type('html')
      .send(outingPage(outing, pages));
  });

  api.get(EVENTS, eventsOf(studio));
  api.post(LOOKED, forHere, (request, response) => {
    studio.hearing.tellLooked(readAs(Looked, request.body));
    response.status(204).end();
  });

  api.get(COPIES, async (_request, response) => {
    const { folder, kept, newest, trouble, behindSince } = await copiesOf(studio);
    response.json({ folder, kept, newestAt: newest?.at ?? null, trouble, behindSince } satisfies CopiesDto);
  });
  let isCopying = false;
  api.get(BACKUP, async (request, response) => {
    // A page of somebody else's could have a copy made by only showing an address.
    if (isFromElsewhere(request))
      throw new ProblemError(403, 'Wrong origin', 'A copy is taken from the studio’s own page, under Settings.');
    if (isCopying) throw new ProblemError(429, 'One at a time', 'A copy is being made already; take it, then ask for another.');
    isCopying = true;
    let folder: string | undefined;
    const away = (): void => {
      isCopying = false;
      if (folder !== undefined) rmSync(folder, { recursive: true, force: true });
    };
    try {
      folder = mkdtempSync(join(tmpdir(), 'dusk-copy-'));
      const name = copyName(studio.now(), studio.id);
      const file = join(folder, name);
      await studio.copy(file);
      response.on('close', away);
      response.download(file, name);
    } catch (cause) {
      away();
      throw cause;
    }
  });

  api.use(() => {
    throw new ProblemError(404, 'Not found', 'There is nothing here.');
  });
  return api;
}

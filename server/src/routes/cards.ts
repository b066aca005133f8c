import { readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { CARDS_FOUND, CARDS_MOST_BYTES, CARD_FILES, CardQuery, checkShape, readAs } from '@dusk/wire';
import { Router } from 'express';
import multer from 'multer';
import { ProblemError } from '../problems.ts';
import { keepFile } from '../studio/bringing.ts';
import { findCards } from '../studio/cardsFound.ts';
import type { Studio } from '../studio/studio.ts';

const LONGEST_NAME = 120;

/** JSON in a query. @throws ProblemError where it is none */
export function jsonIn(text: unknown): unknown {
  try {
    return JSON.parse(typeof text === 'string' ? text : '{}');
  } catch {
    throw new ProblemError(400, 'Not understood', 'What is wanted must be written as JSON.');
  }
}

const files = multer({
  storage: multer.diskStorage({ destination: tmpdir() }),
  limits: { fileSize: CARDS_MOST_BYTES, files: 1, fields: 2 },
});

/** Cards that are looked for, and files of cards that come and go. */
export function cardRoutes({ look, change }: Studio): Router {
  const routes = Router();

  routes.get(CARDS_FOUND, async ({ query }, response) => {
    const wanted = jsonIn(query['wanted']);
    checkShape(wanted);
    const asked = readAs(CardQuery, wanted);
    response.json(await look((db) => findCards(db, asked)));
  });

  routes.post(CARD_FILES, files.single('file'), async ({ file }, response) => {
    if (!file) throw new ProblemError(422, 'No file', 'Send one file of cards, in the field "file".');
    try {
      const bytes = await readFile(file.path);
      // Browsers send names in UTF-8 without saying so.
      const name = Buffer.from(file.originalname, 'latin1').toString('utf8').slice(0, LONGEST_NAME) || 'cards';
      response.status(201).json(await change((db) => keepFile(db, name, bytes)));
    } finally {
      await rm(file.path, { force: true });
    }
  });
  return routes;
}

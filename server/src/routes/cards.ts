import { readFile, rm } from 'node:fs/promises';
import {
  CARD_FILES,
  CARD_FORMS,
  CardQuery,
  CARDS_FOUND,
  CARDS_MOST_BYTES,
  CARDS_OUT,
  CardsOut,
  PRINTED,
  readAs,
  SheetWanted,
} from '@dusk/wire';
import type { ClassConstructor } from 'class-transformer';
import { Router } from 'express';
import { ProblemError } from '../refusing/problems.ts';
import { keepFile } from '../cards/meeting.ts';
import { isForHere } from '../refusing/isForHere.ts';
import { sheetOf } from '../sheets/print.ts';
import { cardsOut } from '../cards/cardsOut.ts';
import { findCards } from '../cards/cardsFound.ts';
import type { Studio } from '../change/studio.ts';
import { uploads } from './uploads.ts';

const LONGEST_NAME = 120;

/** What is wanted, as JSON in the query. @throws ProblemError or InvalidRequest where it is none, or does not fit */
function wantedIn<T extends object>(type: ClassConstructor<T>, text: unknown): T {
  let wanted: unknown;
  try {
    wanted = JSON.parse(typeof text === 'string' ? text : '{}');
  } catch {
    throw new ProblemError(400, 'Not understood', 'What is wanted must be written as JSON.');
  }
  return readAs(type, wanted);
}

const TYPES = { json: 'application/json', csv: 'text/csv', cgats: 'text/plain' } as const;
const ENDS = { json: 'json', csv: 'csv', cgats: 'txt' } as const;

/** Cards that are looked for, and files of cards that come and go. */
export function cardRoutes(studio: Studio): Router {
  const { look } = studio;
  const routes = Router();

  routes.get(CARDS_FOUND, async ({ query }, response) => {
    const asked = wantedIn(CardQuery, query['wanted']);
    response.json(await look((db) => findCards(db, asked)));
  });

  routes.post(CARD_FILES, isForHere(studio), uploads(CARDS_MOST_BYTES).single('file'), async ({ file }, response) => {
    if (!file) throw new ProblemError(422, 'No file', 'Send one file of cards, in the field "file".');
    try {
      const bytes = await readFile(file.path);
      // Browsers send names in UTF-8 without saying so.
      const name = Buffer.from(file.originalname, 'latin1').toString('utf8').slice(0, LONGEST_NAME) || 'cards';
      response.status(201).json(await keepFile(studio, name, bytes));
    } finally {
      await rm(file.path, { force: true });
    }
  });
  routes.get(CARDS_OUT, async ({ query }, response) => {
    const asked = wantedIn(CardsOut, query['wanted']);
    const form = CARD_FORMS.find((one) => one === (query['as'] ?? 'json'));
    if (!form) throw new ProblemError(422, 'Not understood', `Cards go out as ${CARD_FORMS.join(', ')}.`);
    const text = await look((db) => cardsOut(db, asked, form));
    response.attachment(`cards.${ENDS[form]}`).type(`${TYPES[form]}; charset=utf-8`).send(text);
  });

  routes.get(PRINTED, async ({ query }, response) => {
    const asked = wantedIn(SheetWanted, query['wanted']);
    const draw = await look((db) => sheetOf(db, asked, studio.now()));
    const { name, bytes } = await draw();
    // It opens in the browser's own viewer, to be looked at and printed.
    const file = `${name.replace(/[^\p{L}\p{N} ,.-]/gu, '_').slice(0, 80)}.pdf`;
    response
      .set('Content-Disposition', `inline; filename*=UTF-8''${encodeURIComponent(file)}`)
      .type('application/pdf')
      .send(bytes);
  });
  return routes;
}

import type {
  Answer,
  CardForm,
  CardQuery,
  CardsFound,
  CardsOut,
  Change,
  CopiesDto,
  FilePreview,
  Looked,
  PictureDto,
  Problem,
  ReadAnswers,
  ReadName,
  Sent,
  SheetWanted,
} from '@dusk/wire';
import {
  CARD_FILES,
  CARDS_FOUND,
  CARDS_OUT,
  CHANGES,
  COPIES,
  LOOKED,
  OUTING,
  PICTURES,
  PRINTED,
  READS,
  STUDIO_HEADER,
} from '@dusk/wire/reads';
import { ApiError } from '../floor/apiError.ts';

const unreachable: Problem = {
  type: 'about:blank',
  title: 'No answer',
  status: 0,
  detail: 'The studio does not answer. Is the program still running?',
};

/** @param studio the one that it is meant for: another that answers here refuses it */
async function call<T>(method: string, path: string, body?: unknown, studio?: string): Promise<T> {
  const form = body instanceof FormData;
  const init: RequestInit = { method };
  if (body !== undefined) {
    init.body = form ? body : JSON.stringify(body);
    init.headers = { ...(!form && { 'Content-Type': 'application/json' }), ...(studio && { [STUDIO_HEADER]: studio }) };
  }
  const response = await fetch(`/api${path}`, init).catch(() => {
    throw new ApiError(unreachable);
  });
  if (!response.ok) {
    const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
    // Whoever answers without a sentence is no studio that refuses: it is as good as away.
    throw new ApiError(problem?.detail ? problem : { ...unreachable, detail: `The studio answered ${response.status}.` });
  }
  if (response.status === 204) return undefined as T;
  // An answer that breaks off is none.
  return (await response.json().catch(() => {
    throw new ApiError(unreachable);
  })) as T;
}

/** Sends a change; a change that is known is answered again. */
export const sendChange = (change: Change, studio?: string): Promise<Answer> => call('POST', CHANGES, change, studio);

export const read = <N extends ReadName>(name: N, id = ''): Promise<ReadAnswers[N]> => call('GET', READS[name].replace(':id', id));

/** Tells windows that follow how the picture is looked at. */
export const sendLooked = (looked: Looked, studio?: string): Promise<void> => call('POST', LOOKED, looked, studio);

export const readCopies = (): Promise<CopiesDto> => call('GET', COPIES);

/** Sends a picture ahead of the change that speaks of it. */
export function sendPicture(file: File, studio?: string): Promise<PictureDto> {
  const form = new FormData();
  form.append('picture', file);
  return call('POST', PICTURES, form, studio);
}

export const pictureUrl = (pictureId: string): string => `/api${PICTURES}/${pictureId}`;

const wanted = (query: object): string => `wanted=${encodeURIComponent(JSON.stringify(query))}`;

/** Cards that are as wanted, nearest or darkest first. */
export const findCards = (query: Sent<CardQuery>): Promise<CardsFound> => call('GET', `${CARDS_FOUND}?${wanted(query)}`);

/** Sends a file of cards ahead. @returns what bringing it in would do */
export function sendCards(file: File, studio?: string): Promise<FilePreview> {
  const form = new FormData();
  form.append('file', file);
  return call('POST', CARD_FILES, form, studio);
}

/** Where a sheet is printed from, and where cards go out from. */
export const sheetUrl = (sheet: Sent<SheetWanted>): string => `/api${PRINTED}?${wanted(sheet)}`;
export const cardsOutUrl = (cards: Sent<CardsOut>, form: CardForm): string => `/api${CARDS_OUT}?${wanted(cards)}&as=${form}`;
export const outingUrl = (paintingId: string): string => `/api/paintings/${paintingId}${OUTING}`;

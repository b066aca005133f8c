import type {
  NewPainting,
  NewPalette,
  NewPile,
  PaintingChange,
  PaintingDto,
  PaletteChange,
  PaletteDto,
  PileChange,
  PileDto,
  Problem,
  ReferenceDto,
  SettingsChange,
  SettingsDto,
  TubeDto,
} from '@dusk/wire';

/** What the server said no to, as a sentence; a lost connection has status 0. */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
    this.name = 'ApiError';
  }
}

const unreachable: Problem = {
  type: 'about:blank',
  title: 'No answer',
  status: 0,
  detail: 'The studio does not answer. Is the program still running? What you see is kept here until it does.',
};

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const form = body instanceof FormData;
  const init: RequestInit = { method };
  if (body !== undefined) {
    init.body = form ? body : JSON.stringify(body);
    if (!form) init.headers = { 'Content-Type': 'application/json' };
  }
  const response = await fetch(`/api${path}`, init).catch(() => {
    throw new ApiError(unreachable);
  });
  if (!response.ok) {
    const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
    throw new ApiError(problem ?? { ...unreachable, status: response.status, detail: `The studio answered ${response.status}.` });
  }
  return response.status === 204 ? (undefined as T) : ((await response.json()) as T);
}

/** The wire classes as plain data: an instance is made and checked on the other side. */
type Sent<T> = { [K in keyof T]: T[K] };

export const api = {
  settings: () => call<SettingsDto>('GET', '/settings'),
  changeSettings: (change: Sent<SettingsChange>) => call<SettingsDto>('PATCH', '/settings', change),
  tubes: () => call<TubeDto[]>('GET', '/tubes'),
  palettes: () => call<PaletteDto[]>('GET', '/palettes'),
  addPalette: (palette: Sent<NewPalette>) => call<PaletteDto>('POST', '/palettes', palette),
  changePalette: (id: string, change: Sent<PaletteChange>) => call<PaletteDto>('PATCH', `/palettes/${id}`, change),
  deletePalette: (id: string) => call<void>('DELETE', `/palettes/${id}`),
  restorePalette: (id: string) => call<PaletteDto>('POST', `/palettes/${id}/restore`),
  paintings: () => call<PaintingDto[]>('GET', '/paintings'),
  addPainting: (painting: Sent<NewPainting>) => call<PaintingDto>('POST', '/paintings', painting),
  changePainting: (id: string, change: Sent<PaintingChange>) => call<PaintingDto>('PATCH', `/paintings/${id}`, change),
  deletePainting: (id: string) => call<void>('DELETE', `/paintings/${id}`),
  restorePainting: (id: string) => call<PaintingDto>('POST', `/paintings/${id}/restore`),
  addReference: (id: string, file: File) => {
    const form = new FormData();
    form.append('picture', file);
    return call<ReferenceDto>('POST', `/paintings/${id}/references`, form);
  },
  deleteReference: (id: string) => call<void>('DELETE', `/references/${id}`),
  restoreReference: (id: string) => call<void>('POST', `/references/${id}/restore`),
  piles: (paintingId: string) => call<PileDto[]>('GET', `/paintings/${paintingId}/piles`),
  addPile: (paintingId: string, pile: Sent<NewPile>) => call<PileDto>('POST', `/paintings/${paintingId}/piles`, pile),
  changePile: (id: string, change: Sent<PileChange>) => call<PileDto>('PATCH', `/piles/${id}`, change),
  deletePile: (id: string) => call<void>('DELETE', `/piles/${id}`),
  restorePile: (id: string) => call<PileDto>('POST', `/piles/${id}/restore`),
};

export const pictureUrl = (pictureId: string): string => `/api/pictures/${pictureId}`;

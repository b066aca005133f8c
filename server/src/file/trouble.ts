import { ProblemError } from '../refusing/problems.ts';

/** Why a studio cannot be opened, in a painter's words: what, where, and what to do. Nothing was written. */
export class TroubleAtStart extends Error {
  constructor(detail: string) {
    super(detail);
    this.name = 'TroubleAtStart';
  }
}

/** Whether something failed for want of room: on a full disk SQLite says so in several ways. */
export const isForWantOfRoom = (cause: unknown): boolean => {
  const { code = '' } = cause as { code?: string };
  return code === 'SQLITE_FULL' || code === 'ENOSPC' || code === 'EDQUOT' || code.startsWith('SQLITE_IOERR') || code === 'SQLITE_CANTOPEN';
};

/** What the system says of a folder or a file, in words; what was said in words already stays as it is. */
export function inWords(cause: unknown, folder: string): string {
  if (cause instanceof TroubleAtStart || cause instanceof ProblemError) return cause.message;
  const { code, message } = cause as NodeJS.ErrnoException;
  switch (code) {
    case 'EADDRINUSE':
      return 'The port is taken: another Auburn Dusk may be open. Choose another with PORT=…';
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
    case 'SQLITE_READONLY':
    case 'SQLITE_CANTOPEN':
      return `The folder ${folder} cannot be written. Give yourself the right to, or choose another with DUSK_DATA=…`;
    case 'EEXIST':
    case 'ENOTDIR':
      return `${folder} is a file, not a folder. Choose a folder with DUSK_DATA=…`;
    case 'ENOSPC':
    case 'SQLITE_FULL':
      return `The disk that holds ${folder} is full. Make room and start again; nothing was changed.`;
    case 'SQLITE_CORRUPT':
    case 'SQLITE_NOTADB':
      return `The studio in ${folder} is damaged. Put the newest copy back with npm run restore; nothing was changed.`;
    default:
      if (code?.startsWith('SQLITE_IOERR') || code === 'EIO')
        return `The disk that holds ${folder} cannot be read or written (${message}). See whether it is full or fails; make room, or put a copy back on another with npm run restore.`;
      return `The studio in ${folder} cannot be opened: ${message}.`;
  }
}

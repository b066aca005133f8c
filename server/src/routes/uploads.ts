import { tmpdir } from 'node:os';
import multer, { type Multer } from 'multer';

/** One file of at most so many bytes. It lies on the disk until its turn comes, so that many large ones at once do not fill the memory. */
export const uploads = (mostBytes: number): Multer =>
  multer({ storage: multer.diskStorage({ destination: tmpdir() }), limits: { fileSize: mostBytes, files: 1, fields: 2 } });

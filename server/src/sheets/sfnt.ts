import { inflateSync } from 'node:zlib';

const HEAD = 44;
const ENTRY = 20;
const PLAIN_HEAD = 12;
const PLAIN_ENTRY = 16;
const padded = (length: number): number => (length + 3) & ~3;

/**
 * A face as it lies in a web font (WOFF 1.0, W3C 2012) with its tables unpacked: whoever draws with it
 * would else unpack them again for every word.
 */
export function unpacked(woff: Buffer): Buffer {
  if (woff.toString('latin1', 0, 4) !== 'wOFF') return woff;
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = HEAD + i * ENTRY;
    const [offset, packed, length] = [woff.readUInt32BE(at + 4), woff.readUInt32BE(at + 8), woff.readUInt32BE(at + 12)];
    const bytes = woff.subarray(offset, offset + packed);
    return { tag: woff.subarray(at, at + 4), sum: woff.readUInt32BE(at + 16), bytes: packed < length ? inflateSync(bytes) : bytes };
  });
  const directory = PLAIN_HEAD + count * PLAIN_ENTRY;
  const out = Buffer.alloc(directory + tables.reduce((sum, { bytes }) => sum + padded(bytes.length), 0));
  woff.copy(out, 0, 4, 8);
  // How many tables, and what a search by halves needs.
  const steps = Math.floor(Math.log2(count));
  out.writeUInt16BE(count, 4);
  out.writeUInt16BE(2 ** steps * PLAIN_ENTRY, 6);
  out.writeUInt16BE(steps, 8);
  out.writeUInt16BE((count - 2 ** steps) * PLAIN_ENTRY, 10);
  let at = directory;
  tables.forEach(({ tag, sum, bytes }, i) => {
    const entry = PLAIN_HEAD + i * PLAIN_ENTRY;
    tag.copy(out, entry);
    out.writeUInt32BE(sum, entry + 4);
    out.writeUInt32BE(at, entry + 8);
    out.writeUInt32BE(bytes.length, entry + 12);
    bytes.copy(out, at);
    at += padded(bytes.length);
  });
  return out;
}

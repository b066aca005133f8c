// npm run kernel: assembles core/src/matching/kernel/colour.wat into a module of bytes, since core reads no files.
import { readFileSync, writeFileSync } from 'node:fs';
import wabt from 'wabt';

const source = new URL('../src/matching/kernel/colour.wat', import.meta.url);
const { parseWat } = await wabt();
const module = parseWat('colour.wat', readFileSync(source, 'utf8'), { simd: true });
const { buffer } = module.toBinary({});
writeFileSync(
  new URL('../src/matching/tables/colourKernel.ts', import.meta.url),
  `// Written by core/scripts/assemble-kernel.mjs from core/src/matching/kernel/colour.wat; do not edit by hand.\n/** A WebAssembly module with SIMD that colours all divisions of one set. */\nexport const COLOUR_KERNEL: readonly number[] = [${Array.from(buffer).join(',')}];\n`,
);
console.log(`${buffer.length} bytes`);

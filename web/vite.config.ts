import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress } from 'node:zlib';
import vue from '@vitejs/plugin-vue';
import { defineConfig, type Plugin } from 'vite';
import vuetify from 'vite-plugin-vuetify';
import { parts } from './vite.parts.ts';

const root = import.meta.dirname;
const plugins = () => [vue(), vuetify({ autoImport: true })];

/** Packs once, as small as can be, instead of each time something is asked for. */
const packed: Plugin = {
  name: 'packed',
  apply: 'build',
  async writeBundle({ dir = '' }, bundle) {
    const pack = promisify(brotliCompress);
    const texts = Object.values(bundle).filter(({ fileName }) => /\.(js|css)$/.test(fileName));
    await Promise.all(
      texts.map(async (one) => {
        const plain = one.type === 'chunk' ? one.code : one.source;
        if (plain.length > LEAST_PACKED) await writeFile(join(dir, `${one.fileName}.br`), await pack(plain));
      }),
    );
  },
};
const LEAST_PACKED = 200;

export default defineConfig({
  root,
  plugins: [...plugins(), parts(root, plugins), packed],
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:4270' } },
  optimizeDeps: { include: ['vuetify/components/*'] },
});

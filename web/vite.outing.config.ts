import { join } from 'node:path';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';

/** The page to go out: one script and one style with its letters in it, which the server writes into one file. */
export default defineConfig({
  root: import.meta.dirname,
  plugins: [vue()],
  publicDir: false,
  build: {
    target: 'es2020',
    outDir: 'dist/outing',
    emptyOutDir: true,
    assetsInlineLimit: 1_000_000,
    cssCodeSplit: false,
    modulePreload: false,
    rollupOptions: {
      input: join(import.meta.dirname, 'outing/main.ts'),
      output: { format: 'iife', entryFileNames: 'outing.js', assetFileNames: 'outing[extname]' },
    },
  },
});

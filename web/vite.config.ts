import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { compression, defineAlgorithm } from 'vite-plugin-compression2';
import vuetify from 'vite-plugin-vuetify';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    vue(),
    vuetify({ autoImport: true }),
    // Packed once, as small as can be, instead of each time they are asked for.
    compression({ algorithms: [defineAlgorithm('brotliCompress')], include: /\.(js|css|svg)$/, threshold: 200 }),
  ],
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:4270' } },
  optimizeDeps: { include: ['vuetify/components/*'] },
});

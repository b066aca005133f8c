import 'reflect-metadata';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { router } from './router.ts';
import { useNotices } from './stores/notices.ts';
import { usePaintings } from './stores/paintings.ts';
import { usePalettes } from './stores/palettes.ts';
import { useSettings } from './stores/settings.ts';
import { useTubes } from './stores/tubes.ts';
import { vuetify } from './theme/vuetify.ts';

const app = createApp(App).use(createPinia()).use(vuetify);

// The stores are full before the first place opens, so that an address leads where it did.
await useNotices().attempt(() => Promise.all([useSettings().load(), useTubes().load(), usePalettes().load(), usePaintings().load()]));
app.use(router).mount('#app');

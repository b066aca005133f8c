import { createPinia } from 'pinia';
import { createApp } from 'vue';
import { useTrueSize } from './shell/screen.ts';
import { useNotices } from './shell/notices.ts';
import { fetchAhead, router } from './shell/router.ts';
import { vuetify } from './shell/theme/vuetify.ts';
import Window from './shell/Window.vue';
import { useStudio } from './studio/useStudio.ts';

const app = createApp(Window).use(createPinia()).use(vuetify);

// The stores are full before the first place opens, so that an address leads where it did.
await useNotices().attempt(() => useStudio().load('studio'));
useTrueSize();
app.use(router).mount('#app');
void fetchAhead();

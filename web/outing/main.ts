import { createApp } from 'vue';
import '@fontsource/alegreya-sans/latin-400.css';
import '@fontsource/alegreya-sans/latin-700.css';
import './outing.css';
import type { Outing } from '@dusk/core';
import OutingPage from './OutingPage.vue';

// What the page shows lies in it; nothing is fetched.
const outing = JSON.parse(document.getElementById('outing')!.textContent) as Outing;
document.title = outing.title;
createApp(OutingPage, { outing }).mount('#app');

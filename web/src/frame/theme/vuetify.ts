import '@fontsource/alegreya-sans/400.css';
import '@fontsource/alegreya-sans/500.css';
import '@fontsource/alegreya-sans/700.css';
import './letters.css';
import 'vuetify/styles/core';
import './studio.css';
import { createVuetify } from 'vuetify';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';
import { DARK, LIGHT } from './rooms.ts';

export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: { defaultTheme: 'dark', themes: { light: { dark: false, colors: LIGHT }, dark: { dark: true, colors: DARK } } },
  defaults: {
    VBtn: { variant: 'text', ripple: false, rounded: 'sm', height: 44, minWidth: 44 },
    VProgressLinear: { color: 'primary', height: 3 },
    VMenu: { transition: false, offset: 4 },
    VList: { density: 'comfortable', elevation: 0 },
    VListItem: { ripple: false },
    VSelect: { variant: 'underlined', density: 'compact', hideDetails: true, menuProps: { transition: false } },
    VTextField: { variant: 'underlined', density: 'compact', hideDetails: true },
    VCombobox: { variant: 'underlined', density: 'compact', hideDetails: true, menuProps: { transition: false } },
    VCheckbox: { density: 'comfortable', hideDetails: true },
    VAutocomplete: { variant: 'underlined', density: 'compact', hideDetails: true },
    VSlider: { hideDetails: true, ripple: false, thumbSize: 14, trackSize: 2, color: 'currentColor' },
    VRangeSlider: { hideDetails: true, ripple: false, thumbSize: 14, trackSize: 2 },
    VDialog: { transition: false, scrim: 'black' },
  },
});

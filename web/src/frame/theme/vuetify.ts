import '@fontsource/alegreya-sans/400.css';
import '@fontsource/alegreya-sans/500.css';
import '@fontsource/alegreya-sans/700.css';
import './letters.css';
import 'vuetify/styles/core';
import './studio.css';
import { createVuetify, type ThemeDefinition } from 'vuetify';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';

/** The studio by day: paper, slate ink. */
const light: ThemeDefinition = {
  dark: false,
  colors: {
    background: '#eceae7',
    surface: '#f6f5f3',
    'surface-variant': '#dedbd6',
    'on-surface-variant': '#3a3f47',
    primary: '#8a3d1f',
    'on-primary': '#ffffff',
    secondary: '#3f5268',
    'on-secondary': '#ffffff',
    error: '#8c1d18',
    'on-background': '#23262b',
    'on-surface': '#23262b',
  },
};

/** The studio at last light. */
const dark: ThemeDefinition = {
  dark: true,
  colors: {
    background: '#22252a',
    surface: '#2b2f35',
    'surface-variant': '#393e46',
    'on-surface-variant': '#d5d7da',
    primary: '#e0936a',
    'on-primary': '#22130b',
    secondary: '#a9b9cd',
    'on-secondary': '#16202c',
    error: '#f0a79f',
    'on-background': '#e9e7e3',
    'on-surface': '#e9e7e3',
  },
};

export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: { defaultTheme: 'dark', themes: { light, dark } },
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

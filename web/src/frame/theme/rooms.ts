// The colours of the two rooms. What is large beside a picture has no hue: it would be seen in the picture.

/** The studio by day. */
export const LIGHT = {
  background: '#ebebeb',
  surface: '#f5f5f5',
  'surface-variant': '#dcdcdc',
  'on-surface-variant': '#3f3f3f',
  primary: '#8a3d1f',
  'on-primary': '#ffffff',
  secondary: '#3f5268',
  'on-secondary': '#ffffff',
  error: '#8c1d18',
  'on-background': '#262626',
  'on-surface': '#262626',
};

/** The studio at last light. */
export const DARK: typeof LIGHT = {
  background: '#252525',
  surface: '#2f2f2f',
  'surface-variant': '#3e3e3e',
  'on-surface-variant': '#d7d7d7',
  primary: '#e0936a',
  'on-primary': '#22130b',
  secondary: '#a9b9cd',
  'on-secondary': '#16202c',
  error: '#f0a79f',
  'on-background': '#e8e8e8',
  'on-surface': '#e8e8e8',
};

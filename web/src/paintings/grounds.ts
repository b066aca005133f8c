/** Grounds that are often painted on; any other colour may be one. */
export const GROUNDS = [
  { value: '#a89b88', title: 'warm grey' },
  { value: '#f1eee6', title: 'white priming' },
  { value: '#7f7f7f', title: 'middle grey' },
  { value: '#6c7078', title: 'cool grey' },
  { value: '#9c6b43', title: 'thin earth' },
  { value: '#8c4a2f', title: 'red earth' },
] as const;

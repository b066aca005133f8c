// Sheets of a day's work, fetched once the piles are there.
export { default as DaySheet } from '../day/DaySheet.vue';
export { default as FieldNotes } from '../deciding/FieldNotes.vue';
export { default as PalettePhotoSheet } from '../day/PalettePhotoSheet.vue';

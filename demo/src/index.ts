export { fillStudio } from './fill.ts';
export { SAMPLE_MAKER, SAMPLE_PAINTINGS, SAMPLE_TUBES } from './sampleStudio.ts';

// Lays the sample studio out in a folder, once for all browser tests: `node sample FOLDER`.
import { layOutSample } from './sampleFolder.ts';

await layOutSample(process.argv[2]!);

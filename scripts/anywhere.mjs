// Required by Mocha: the tests are at one place, wherever the machine is, and draw the same each time (DUSK_SEED draws otherwise).
import { configureGlobal } from 'fast-check';

process.env.TZ = 'Europe/Berlin';
// What fails is told as it was drawn: making it smaller may take longer than all the rest.
configureGlobal({ seed: Number(process.env.DUSK_SEED ?? 20261130), endOnFailure: true });

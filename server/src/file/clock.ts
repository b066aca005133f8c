// What time it is: the one place of the server where the machine's clock is read.

/** What time it is, UTC ISO. A studio is told its clock when it is opened. */
export type Clock = () => string;

// eslint-disable-next-line no-restricted-syntax -- here and nowhere else
export const machineClock: Clock = () => new Date().toISOString();

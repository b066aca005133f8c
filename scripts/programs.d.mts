/** Bundles the server's programs into a folder, as deep in a workspace as its sources are. */
export function bundlePrograms(folder: string): Promise<unknown>;
/** The same of the program that opens the sample studio. */
export function bundleSample(folder: string): Promise<unknown>;

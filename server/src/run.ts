export {};
// Told to stop while it is still being read, the program has nothing open.
const early = (): never => process.exit(0);
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, early);
const { runServer } = await import('./main.ts');

await runServer('studio/own');

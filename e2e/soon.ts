/** Waits until something holds. @throws Error that names it when it does not in forty seconds */
export async function soon(holds: () => boolean | Promise<boolean>, what: string): Promise<void> {
  const late = AbortSignal.timeout(40_000);
  // What takes long is asked for less often: asking is work of the studio and of the page that is waited for.
  for (let pause = 25; !(await holds()); pause = Math.min(2 * pause, 200)) {
    if (late.aborted) throw new Error(`It did not come to pass: ${what}.`);
    await new Promise((done) => setTimeout(done, pause));
  }
}

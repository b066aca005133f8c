/** What one window at a time does, by name. */
const underWay = new Map<string, Promise<unknown>>();

/**
 * Does something while no other window of this browser does the same; a page that is not served securely has no locks
 * of the browser's, and waits for itself alone: what two windows send twice the studio does once.
 */
export async function alone<T>(name: string, work: () => Promise<T>): Promise<T> {
  const locks = (navigator as { readonly locks?: LockManager }).locks;
  if (locks) return locks.request(name, work) as Promise<T>;
  const next = (underWay.get(name) ?? Promise.resolve()).then(work, work);
  underWay.set(
    name,
    next.catch(() => undefined),
  );
  return next;
}

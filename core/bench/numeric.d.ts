declare module 'numeric' {
  const numeric: {
    /** Quasi-Newton (BFGS) search for the least of a function, its slopes by differences. */
    uncmin(
      f: (x: number[]) => number,
      start: number[],
      tolerance?: number,
      gradient?: (x: number[]) => number[],
      maxIterations?: number,
    ): { solution: number[]; f: number };
  };
  export default numeric;
}

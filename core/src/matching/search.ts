/**
 * Pattern search (Hooke and Jeeves 1961) for the least of a function of a few positive numbers,
 * in factors: each number is tried larger and smaller by a factor that shrinks when nothing helps.
 * Never answers with anything worse than the start.
 * @param least numbers below this are held there (0 stays 0)
 */
export function searchFactors(
  cost: (numbers: Float64Array) => number,
  start: ArrayLike<number>,
  { factor = 1.6, smallest = 1.002, rounds = 120, least = 1e-6 } = {},
): { readonly numbers: Float64Array; readonly cost: number } {
  // Tried in place, since an array for every trial costs more than the trial.
  const numbers = Float64Array.from(start);
  let best = cost(numbers);
  let step = factor;
  for (let round = 0; round < rounds && step > smallest; round++) {
    let improved = false;
    for (let i = 0; i < numbers.length; i++) {
      const was = numbers[i]!;
      if (was === 0) continue;
      for (let way = 0; way < 2; way++) {
        numbers[i] = Math.max(least, was * (way === 0 ? step : 1 / step));
        const c = cost(numbers);
        if (c < best - 1e-12) {
          best = c;
          improved = true;
          break;
        }
        numbers[i] = was;
      }
    }
    if (!improved) step = Math.sqrt(step);
  }
  return { numbers, cost: best };
}

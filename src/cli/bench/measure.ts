export type Bench = (name: string) => Promise<void>;

export const chosen = (names: readonly string[], all: readonly string[]) => (names.length ? names : all);

/** The q-th quantile of some times. */
export function quantile(times: readonly number[], q: number): number {
  const sorted = [...times].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))]!;
}

/** Milliseconds of each of n runs, after a warm-up. */
export async function timed(n: number, work: () => unknown, warm = 3): Promise<number[]> {
  for (let i = 0; i < warm; i++) await work();
  const times: number[] = [];
  for (let i = 0; i < n; i++) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  return times;
}

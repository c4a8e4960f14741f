/**
 * Symmetric positive (semi)definite systems in envelope storage, ordered by reverse Cuthill–McKee.
 * After George & Liu, Computer Solution of Large Sparse Positive Definite Systems (1981), chapter 4.
 */
export interface Envelope {
  readonly n: number;
  /** order[k] is the original index that stands at place k; place is its inverse. */
  readonly order: Int32Array;
  readonly place: Int32Array;
  /** First column of each row's envelope, and where that row starts in storage. */
  readonly first: Int32Array;
  readonly start: Int32Array;
  readonly values: Float64Array;
}

/** Ordering and storage for a matrix whose graph is given by neighbour lists. */
export function envelope(neighbours: readonly (readonly number[])[]): Envelope {
  const n = neighbours.length;
  const seen = new Uint8Array(n);
  const degree = (i: number) => neighbours[i]!.length;
  const breadthFirst = (from: number, mark: Uint8Array): number[] => {
    const queue = [from];
    mark[from] = 1;
    for (let h = 0; h < queue.length; h++) {
      const next = neighbours[queue[h]!]!.filter((j) => !mark[j]);
      next.sort((a, b) => degree(a) - degree(b) || a - b);
      for (const j of next)
        if (!mark[j]) {
          mark[j] = 1;
          queue.push(j);
        }
    }
    return queue;
  };
  const sequence: number[] = [];
  for (let i = 0; i < n; i++) {
    if (seen[i]) continue;
    // the far end of a first sweep is close to peripheral
    const sweep = breadthFirst(i, Uint8Array.from(seen));
    sequence.push(...breadthFirst(sweep[sweep.length - 1]!, seen));
  }
  const order = Int32Array.from(sequence.reverse());
  const place = new Int32Array(n);
  order.forEach((i, k) => (place[i] = k));
  const first = new Int32Array(n);
  const start = new Int32Array(n + 1);
  for (let k = 0; k < n; k++) {
    let low = k;
    for (const j of neighbours[order[k]!]!) low = Math.min(low, place[j]!);
    first[k] = low;
    start[k + 1] = start[k]! + (k - low + 1);
  }
  return { n, order, place, first, start, values: new Float64Array(start[n]!) };
}

/** Adds to the entry of original indices i, j. */
export function addEntry(e: Envelope, i: number, j: number, value: number): void {
  const a = e.place[i]!,
    b = e.place[j]!;
  const row = Math.max(a, b),
    col = Math.min(a, b);
  e.values[e.start[row]! + col - e.first[row]!]! += value;
}

/** Factors A = L D Lᵀ in place; pivots below `tiny` times their diagonal are dropped (their unknown becomes 0). */
export function factor(e: Envelope, tiny: number): void {
  const { n, first, start, values } = e;
  for (let i = 0; i < n; i++) {
    const fi = first[i]!,
      si = start[i]! - fi;
    const diagonal = values[si + i]!;
    for (let j = fi; j < i; j++) {
      const fj = first[j]!,
        sj = start[j]! - fj;
      let s = values[si + j]!;
      for (let k = Math.max(fi, fj); k < j; k++) s -= values[si + k]! * values[sj + k]!;
      values[si + j] = s;
    }
    let d = diagonal;
    for (let j = fi; j < i; j++) {
      const dj = values[start[j]! + j - first[j]!]!;
      const raw = values[si + j]!;
      const l = dj === 0 ? 0 : raw / dj;
      values[si + j] = l;
      d -= l * raw;
    }
    values[si + i] = d > tiny * diagonal ? d : 0;
  }
}

/** Solves with the factors of `factor`; b in original order, overwritten with the solution. */
export function solveFactored(e: Envelope, b: Float64Array): void {
  const { n, order, first, start, values } = e;
  const y = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const fi = first[i]!,
      si = start[i]! - fi;
    let s = b[order[i]!]!;
    for (let k = fi; k < i; k++) s -= values[si + k]! * y[k]!;
    y[i] = s;
  }
  // zero pivots belong to dependent equations: no multiplier for them
  for (let i = 0; i < n; i++) {
    const d = values[start[i]! + i - first[i]!]!;
    y[i] = d === 0 ? 0 : y[i]! / d;
  }
  for (let i = n - 1; i >= 0; i--) {
    const fi = first[i]!,
      si = start[i]! - fi;
    for (let k = fi; k < i; k++) y[k]! -= values[si + k]! * y[i]!;
  }
  for (let i = 0; i < n; i++) b[order[i]!] = y[i]!;
}

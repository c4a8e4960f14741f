import { gather, type Prepared } from "./newton";
import { residual } from "./system";
import { FILL, MOVES, RANK } from "./tolerance";

interface Rank {
  /** Numbers (within the cluster) of equations that depend on those before them. */
  readonly dependent: number[];
  /** A basis of infinitesimal motions over the cluster's unknowns; empty when it is rigid. */
  readonly motions: Float64Array[];
}

interface Row {
  readonly pivot: number;
  readonly cols: number[];
  readonly vals: number[];
  readonly head: number;
}

/**
 * Rank of a cluster's Jacobian by sparse elimination, row after row in the given order, each pivoted on its
 * largest entry; rows are normalised first. After Golub & Van Loan, Matrix Computations, 3.4.
 */
export function rankOf(p: Prepared, values: Float64Array, order: readonly number[]): Rank {
  const { cluster, columns, target } = p;
  const n = cluster.unknowns.length;
  const work = new Float64Array(n);
  const inWork = new Uint8Array(n);
  const pivots: Row[] = [];
  const pivotOf = new Int32Array(n).fill(-1);
  const dependent: number[] = [];
  for (const k of order) {
    const e = cluster.equations[k]!;
    residual(e, values);
    const row = new Float64Array(columns[k]!.length);
    gather(e, target[k]!, row);
    let norm = 0;
    for (const v of row) norm += v * v;
    norm = Math.sqrt(norm);
    if (!(norm > 0)) {
      dependent.push(k);
      continue;
    }
    const used: number[] = [];
    // a heap of pivot numbers still to apply keeps elimination in creation order
    const todo: number[] = [];
    const touch = (c: number) => {
      if (inWork[c]) return;
      inWork[c] = 1;
      used.push(c);
      if (pivotOf[c]! >= 0) pushHeap(todo, pivotOf[c]!);
    };
    columns[k]!.forEach((c, i) => {
      touch(c);
      work[c] = row[i]! / norm;
    });
    while (todo.length) {
      const q = pivots[popHeap(todo)]!;
      const f = work[q.pivot]! / q.head;
      work[q.pivot] = 0;
      if (f === 0) continue;
      for (let i = 0; i < q.cols.length; i++) {
        touch(q.cols[i]!);
        work[q.cols[i]!]! -= f * q.vals[i]!;
      }
    }
    let best = -1,
      top = RANK;
    for (const c of used)
      if (pivotOf[c]! < 0 && Math.abs(work[c]!) > top) {
        top = Math.abs(work[c]!);
        best = c;
      }
    if (best < 0) dependent.push(k);
    else {
      const cols: number[] = [],
        vals: number[] = [];
      for (const c of used)
        if (c !== best && Math.abs(work[c]!) > FILL) {
          cols.push(c);
          vals.push(work[c]!);
        }
      pivotOf[best] = pivots.length;
      pivots.push({ pivot: best, cols, vals, head: work[best]! });
    }
    for (const c of used) {
      work[c] = 0;
      inWork[c] = 0;
    }
  }
  return { dependent, motions: nullVectors(pivots, pivotOf) };
}

/** Motions of unit length that no row stops: one for each column without a pivot. */
function nullVectors(pivots: readonly Row[], pivotOf: Int32Array): Float64Array[] {
  const n = pivotOf.length;
  const free: number[] = [];
  for (let c = 0; c < n; c++) if (pivotOf[c]! < 0) free.push(c);
  return free.map((f) => {
    const v = new Float64Array(n);
    v[f] = 1;
    for (let q = pivots.length - 1; q >= 0; q--) {
      const { pivot, cols, vals, head } = pivots[q]!;
      let s = 0;
      for (let i = 0; i < cols.length; i++) s += vals[i]! * v[cols[i]!]!;
      v[pivot] = -s / head;
    }
    const size = Math.hypot(...v);
    return v.map((c) => (Math.abs(c / size) < MOVES ? 0 : c / size));
  });
}

function pushHeap(heap: number[], v: number): void {
  let i = heap.push(v) - 1;
  while (i > 0) {
    const up = (i - 1) >> 1;
    if (heap[up]! <= heap[i]!) break;
    [heap[up], heap[i]] = [heap[i]!, heap[up]!];
    i = up;
  }
}

function popHeap(heap: number[]): number {
  const top = heap[0]!;
  const last = heap.pop()!;
  if (heap.length) {
    heap[0] = last;
    for (let i = 0; ;) {
      let c = 2 * i + 1;
      if (c >= heap.length) break;
      if (c + 1 < heap.length && heap[c + 1]! < heap[c]!) c++;
      if (heap[i]! <= heap[c]!) break;
      [heap[i], heap[c]] = [heap[c]!, heap[i]!];
      i = c;
    }
  }
  return top;
}

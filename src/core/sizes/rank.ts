import { DEPENDENT } from "./tolerance";

/** One row of the table: how a number of a size follows each driving number. */
export type Row = Float64Array;

export const isNothing = (row: Row): boolean => row.every((v) => v === 0);
const norm = (row: Row): number => Math.hypot(...row);

/**
 * Rows taken one after the other, each only if it says something that those before do not: Gram–Schmidt, done twice
 * for each row since once loses digits (Giraud, Langou, Rozložník 2005).
 */
export class Span {
  private readonly basis: Row[] = [];

  get rank(): number {
    return this.basis.length;
  }

  /** What of a row the span does not hold, as a share of its length. */
  private rest(row: Row): Row | undefined {
    const size = norm(row);
    if (size === 0) return undefined;
    const left = row.map((v) => v / size);
    for (let pass = 0; pass < 2; pass++)
      for (const b of this.basis) {
        let dot = 0;
        for (let i = 0; i < b.length; i++) dot += b[i]! * left[i]!;
        for (let i = 0; i < b.length; i++) left[i]! -= dot * b[i]!;
      }
    return norm(left) > DEPENDENT ? left : undefined;
  }

  holds(row: Row): boolean {
    return this.rest(row) === undefined;
  }

  /** Takes all rows or none: none where one of them says nothing new. Rows of nothing do not count. */
  takeAll(rows: readonly Row[]): boolean {
    const before = this.basis.length;
    const telling = rows.filter((r) => !isNothing(r));
    for (const row of telling) {
      const left = this.rest(row);
      if (!left) {
        this.basis.length = before;
        return false;
      }
      const size = norm(left);
      this.basis.push(left.map((v) => v / size));
    }
    return telling.length > 0;
  }
}

/**
 * Weights w with Σ wⱼ rowⱼ nearest to a row g: how g follows from the rows. Rows must be independent.
 * Normal equations by Cholesky; the rows are few and well apart.
 */
export function weightsOf(rows: readonly Row[], row: Row): number[] {
  const n = rows.length;
  const dot = (a: Row, b: Row) => a.reduce((s, v, i) => s + v * b[i]!, 0);
  const l: number[][] = rows.map(() => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = dot(rows[i]!, rows[j]!);
      for (let k = 0; k < j; k++) sum -= l[i]![k]! * l[j]![k]!;
      l[i]![j] = i === j ? Math.sqrt(Math.max(sum, Number.MIN_VALUE)) : sum / l[j]![j]!;
    }
  const y = rows.map((r) => dot(r, row));
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) y[i]! -= l[i]![k]! * y[k]!;
    y[i]! /= l[i]![i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) y[i]! -= l[k]![i]! * y[k]!;
    y[i]! /= l[i]![i]!;
  }
  return y;
}

import { residual, type BoundEquation, type System } from "./system";
import { RESIDUAL, STEEP } from "./tolerance";

/** Steps of Newton's method in one unknown before an equation is left to the whole. */
const STEPS = 30;

/**
 * Settles, again and again, equations that have one unknown left, in x: fully dimensioned outlines dissolve into a row
 * of plain numbers that way. An equation whose unknown does not follow readily is left alone.
 * @returns which slots are constants or settled
 */
export function presolve(system: System): Uint8Array {
  const { equations, constant, x } = system;
  const settled = Uint8Array.from(constant);
  const left = new Int32Array(equations.length);
  const users: number[][] = [];
  const ready: number[] = [];
  equations.forEach((e, k) => {
    const own = distinctOpen(e, settled);
    left[k] = own.length;
    for (const s of own) (users[s] ??= []).push(k);
    if (own.length === 1) ready.push(k);
  });
  for (let at = 0; at < ready.length; at++) {
    const k = ready[at]!;
    if (left[k] !== 1) continue;
    const e = equations[k]!;
    const slot = e.slots.find((s) => !settled[s])!;
    if (!settle(e, slot, x, system.scale)) continue;
    settled[slot] = 1;
    for (const other of users[slot]!) if (--left[other]! === 1) ready.push(other);
  }
  return settled;
}

/** Slots of an equation that are not settled, each once. */
function distinctOpen(e: BoundEquation, settled: Uint8Array): number[] {
  const own: number[] = [];
  for (const s of e.slots) if (!settled[s] && !own.includes(s)) own.push(s);
  return own;
}

/** Newton's method in one unknown; x is left as it was where it does not arrive. */
function settle(e: BoundEquation, slot: number, x: Float64Array, scale: number): boolean {
  const start = x[slot]!;
  let r = residual(e, x);
  for (let i = 0; i < STEPS && Math.abs(r) > RESIDUAL * scale; i++) {
    let slope = 0;
    for (let j = 0; j < e.slots.length; j++) if (e.slots[j] === slot) slope += e.g[j]!;
    if (Math.abs(slope) < STEEP) break;
    const before = x[slot]!;
    x[slot] = before - r / slope;
    const next = residual(e, x);
    if (!(Math.abs(next) < Math.abs(r))) {
      x[slot] = before;
      break;
    }
    r = next;
  }
  if (Math.abs(r) <= RESIDUAL * scale) return true;
  x[slot] = start;
  return false;
}

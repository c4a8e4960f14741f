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
  const { equations, constant, x: values } = system;
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
    if (!settle(e, slot, values, system.scale)) continue;
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
function settle(equation: BoundEquation, slot: number, values: Float64Array, scale: number): boolean {
  const start = values[slot]!;
  let r = residual(equation, values);
  for (let i = 0; i < STEPS && Math.abs(r) > RESIDUAL * scale; i++) {
    let slope = 0;
    for (let j = 0; j < equation.slots.length; j++) if (equation.slots[j] === slot) slope += equation.g[j]!;
    if (Math.abs(slope) < STEEP) break;
    const before = values[slot]!;
    values[slot] = before - r / slope;
    const next = residual(equation, values);
    if (!(Math.abs(next) < Math.abs(r))) {
      values[slot] = before;
      break;
    }
    r = next;
  }
  if (Math.abs(r) <= RESIDUAL * scale) return true;
  values[slot] = start;
  return false;
}

import { strFromU8 } from "fflate";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { MOST_FACETS, type Facets } from "@/core/geometry/facets";

const bad = (sentence: string) => refuse("bad-file", sentence);
/** Bytes before the facets, and bytes of each. */
const HEAD = 84;
const EACH = 50;

/**
 * Reads an STL file, binary or text.
 * @param unit mm that one unit of it stands for: the format has none
 */
export function readStl(bytes: Uint8Array, unit: number): Outcome<Facets> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  // text may begin with anything, and binary files with "solid": the length tells
  const n = bytes.length >= HEAD ? view.getUint32(80, true) : 0;
  if (n > 0 && HEAD + EACH * n === bytes.length) return binary(view, n, unit);
  const head = strFromU8(bytes.subarray(0, 1024), true);
  if (/^\s*solid\b/.test(head) && /\bfacet\b/.test(head)) return text(strFromU8(bytes, true), unit);
  return n > 0 && HEAD + EACH * n > bytes.length
    ? bad("The STL file is cut off: facets are missing at its end.")
    : bad("This is no STL file.");
}

const tooMany = () => bad(`The file has more than ${MOST_FACETS} facets. Export it coarser.`);
const noNumbers = () => bad("The file holds numbers that are none.");

function binary(view: DataView, n: number, unit: number): Outcome<Facets> {
  if (n > MOST_FACETS) return tooMany();
  const positions = new Float64Array(9 * n);
  for (let k = 0; k < n; k++)
    for (let i = 0; i < 9; i++) positions[9 * k + i] = view.getFloat32(HEAD + EACH * k + 12 + 4 * i, true) * unit;
  return finished(positions);
}

function text(source: string, unit: number): Outcome<Facets> {
  if (!/\bendsolid\b/.test(source.slice(-400))) return bad("The STL file is cut off: its end is missing.");
  const numbers: number[] = [];
  for (const [, x, y, z] of source.matchAll(/\bvertex\s+(\S+)\s+(\S+)\s+(\S+)/g)) {
    numbers.push(Number(x) * unit, Number(y) * unit, Number(z) * unit);
    if (numbers.length > 9 * MOST_FACETS) return tooMany();
  }
  return numbers.length % 9
    ? bad("The STL file has a facet with other than three corners.")
    : finished(Float64Array.from(numbers));
}

function finished(positions: Float64Array): Outcome<Facets> {
  if (!positions.length) return bad("The file holds no facets.");
  if (!positions.every(Number.isFinite)) return noNumbers();
  return done({ positions, triangles: Uint32Array.from({ length: positions.length / 3 }, (_, i) => i) });
}

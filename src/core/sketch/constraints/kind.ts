import type { EntityType } from "../curves/entity";

/** Where the numbers of a sketch stand in the solver's vector; indices into it. */
export interface Slots {
  /** Size of the sketch in mm; angular residuals are multiplied by it so that every residual is a length. */
  readonly scale: number;
  point(ref: string): readonly [number, number];
  line(ref: string): readonly [number, number, number, number];
  centre(ref: string): readonly [number, number];
  radius(ref: string): number;
  /** Every number of a curve, in the order its kind gives them. */
  all(ref: string): readonly number[];
  type(ref: string): EntityType;
  /** The points at which a curve begins and ends; none for a closed one. */
  ends(ref: string): readonly string[];
  /** For a spline: its knots, and which handles it has. */
  spline(ref: string): { readonly knots: readonly number[]; readonly start: boolean; readonly end: boolean };
  /** True when two slots are already one and the same. */
  same(a: number, b: number): boolean;
  /** True when a point is held on a curve, as its end or by a constraint. */
  isOn(point: string, curve: string): boolean;
}

/** Numbers to work on in place; plain lists are made faster than typed ones. */
export interface Scratch {
  readonly length: number;
  [i: number]: number;
}

/** One scalar equation: residual in mm and its derivatives, from the local values of its slots. */
export interface Equation {
  readonly slots: readonly number[];
  /** @param v values of the slots @param g receives the derivatives, same length @returns the residual */
  readonly evaluate: (v: Scratch, g: Scratch) => number;
}

/** What a relation says besides its kind and its arguments. */
export interface Options {
  readonly flip?: boolean | undefined;
  readonly factor?: number | undefined;
  readonly sides?: readonly ("near" | "far")[] | undefined;
  /** Slot of the first of its own unknowns, for kinds that have some. */
  readonly extra?: number;
}

/** Arguments by how many a kind takes at least; documents are refused before fewer reach it. */
export type One = readonly [string, ...string[]];
export type Pair = readonly [string, string, ...string[]];
export type Three = readonly [string, string, string, ...string[]];
export type Four = readonly [string, string, string, string, ...string[]];

/** All there is to know about one kind of constraint or dimension. */
export interface RelationKind<Of extends readonly string[] = readonly string[]> {
  /** The argument types it takes, in this order. */
  readonly takes: readonly (readonly EntityType[])[];
  /** What it says, with the names of its arguments and, for a dimension, its size. */
  sentence(names: Of, size: string): string;
  /** Pairs of slots it makes one; exact, and free for the solver. */
  merge?(s: Slots, of: Of): [number, number][];
  /** True when merging is to be tried again after the others have merged. */
  readonly mergesLate?: boolean;
  /** Unknowns of its own (where on a spline a point lies), with where they begin. */
  extra?(s: Slots, of: Of, x: Float64Array): number[];
  equations?(s: Slots, of: Of, size: number, x: Float64Array, o: Options): Equation[];
  /** For a dimension: what it measures now (mm or radians), never negative. */
  measure?(s: Slots, of: Of, x: Float64Array, o: Options): number;
}

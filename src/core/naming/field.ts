import type { z } from "zod";

/**
 * What a field of a document means. Numbers that are typed: `length` and `angle` (a number in the document's unit or
 * degrees, or text), `count`. Numbers that are not: `ratio`, `share`, `place` (coordinates, mm, and turns, degrees, as
 * drawn). Texts: `id` of a thing within the step, `name` by which sizes call each other, `text` and `layout`, which
 * people read and no solid depends on. References: what they point at. `memory`: where something was found last; every
 * rebuild finds it anew.
 */
export type Meaning =
  | "length"
  | "angle"
  | "count"
  | "ratio"
  | "share"
  | "place"
  | "id"
  | "name"
  | "text"
  | "layout"
  | "memory"
  | ReferenceMeaning;

type ReferenceMeaning =
  "face" | "edge" | "vertex" | "plane" | "axis" | "point" | "picture" | "region" | "curve" | "sketch" | "step" | "body";

/** Some fields mean what their neighbours say: the value of a dimension by its kind. Undefined: nothing that counts. */
type Declared = Meaning | ((holder: never) => Meaning | undefined);

interface Declaration {
  readonly meaning: Declared;
  readonly label?: string | undefined;
}
const declarations = new WeakMap<z.core.$ZodType, Declaration>();

/** Declares what a field means, and how it is called in lists. The schema must be the field's own. */
export function means<S extends z.ZodType>(schema: S, meaning: Declared, label?: string): S {
  declarations.set(schema, { meaning, label });
  return schema;
}

export type Path = readonly (string | number)[];

/** A field of a document as the walker meets it. */
export interface Field {
  readonly path: Path;
  readonly meaning: Meaning;
  readonly label: string | undefined;
  readonly value: unknown;
}

interface Shape {
  readonly declaration: Declaration | undefined;
  readonly type: string;
  /** Fields of an object that hold anything of interest. */
  readonly fields: readonly (readonly [string, Shape])[];
  /** Elements of a list, places of a tuple, values of a record. */
  readonly inner: readonly Shape[];
  readonly options: readonly Option[];
  /** Whether anything below is declared. */
  readonly holds: boolean;
}
interface Option {
  readonly shape: Shape;
  readonly fits: (data: unknown) => boolean;
}

const shapes = new WeakMap<z.core.$ZodType, Shape>();

type Def = {
  readonly type: string;
  readonly shape?: Record<string, z.core.$ZodType>;
  readonly element?: z.core.$ZodType;
  readonly items?: readonly z.core.$ZodType[];
  readonly valueType?: z.core.$ZodType;
  readonly innerType?: z.core.$ZodType;
  readonly options?: readonly z.core.$ZodType[];
  readonly values?: readonly unknown[];
};
const defOf = (schema: z.core.$ZodType): Def => schema._zod.def;

/** A schema laid out for walking, once. */
function shapeOf(schema: z.core.$ZodType): Shape {
  const known = shapes.get(schema);
  if (known) return known;
  const def = defOf(schema);
  const declaration = declarations.get(schema);
  if (!declaration && def.innerType) {
    const inner = shapeOf(def.innerType);
    shapes.set(schema, inner);
    return inner;
  }
  const fields = Object.entries(def.shape ?? {}).map(([key, s]) => [key, shapeOf(s)] as const);
  const below = [def.element, def.valueType, ...(def.items ?? [])].filter((s) => s !== undefined);
  const inner = below.map(shapeOf);
  const options = (def.options ?? []).map((s) => ({ shape: shapeOf(s), fits: fitting(s) }));
  const parts = [...fields.map(([, s]) => s), ...inner, ...options.map((o) => o.shape)];
  const shape: Shape = {
    declaration,
    type: def.type,
    fields: fields.filter(([, s]) => s.holds),
    inner,
    options,
    holds: declaration !== undefined || parts.some((s) => s.holds),
  };
  shapes.set(schema, shape);
  return shape;
}

/** Which option of a union a value is of: by the fields it has and the words that stand in them. */
function fitting(option: z.core.$ZodType): (data: unknown) => boolean {
  const def = defOf(option);
  const keys = def.shape;
  if (!keys) return (data) => typeof data === def.type;
  const needed = Object.entries(keys).filter(([, s]) => s._zod.optin === undefined);
  const words = needed.flatMap(([key, s]) => {
    const { type, values } = defOf(s);
    return type === "literal" ? [[key, new Set(values)] as const] : [];
  });
  return (data) => {
    if (typeof data !== "object" || data === null) return false;
    const record = data as Record<string, unknown>;
    if (!needed.every(([key]) => key in record)) return false;
    if (!words.every(([key, values]) => values.has(record[key]))) return false;
    return Object.keys(record).every((key) => key in keys);
  };
}

type Change = (field: Field) => unknown;

function walk(shape: Shape, data: unknown, path: Path, holder: unknown, change: Change): unknown {
  if (!shape.holds || data === undefined || data === null) return data;
  if (shape.declaration) {
    const { meaning: declared, label } = shape.declaration;
    const meaning = typeof declared === "function" ? declared(holder as never) : declared;
    // a reference may hold more than what it refers by
    const value = shape.fields.length ? walkFields(shape.fields, data as Fields, path, change) : data;
    return meaning ? change({ path, meaning, label, value }) : value;
  }
  if (shape.options.length) {
    const option = shape.options.find((o) => o.fits(data));
    return option ? walk(option.shape, data, path, holder, change) : data;
  }
  if (Array.isArray(data)) {
    let next: unknown[] | undefined;
    data.forEach((v, i) => {
      const inner = shape.type === "tuple" ? shape.inner[i] : shape.inner[0];
      const w = inner ? walk(inner, v, [...path, i], data, change) : v;
      if (w !== v) (next ??= [...data])[i] = w;
    });
    return next ?? data;
  }
  if (typeof data !== "object") return data;
  const named =
    shape.type === "record" ? Object.keys(data).flatMap((k) => shape.inner.map((v) => [k, v] as const)) : [];
  return walkFields(shape.type === "record" ? named : shape.fields, data as Fields, path, change);
}

type Fields = Readonly<Record<string, unknown>>;

function walkFields(fields: Shape["fields"], data: Fields, path: Path, change: Change): Fields {
  let next: Record<string, unknown> | undefined;
  for (const [key, inner] of fields) {
    const v = data[key];
    if (v === undefined) continue;
    const w = walk(inner, v, [...path, key], data, change);
    if (w === v) continue;
    next ??= { ...data };
    if (w === undefined) delete next[key];
    else next[key] = w;
  }
  return next ?? data;
}

/**
 * Walks all declared fields of a document.
 * @param change gives a field's new value; undefined takes it away
 * @returns the document with what was changed; the same object where nothing was
 */
export function withFields<T>(schema: z.ZodType, data: T, change: Change): T {
  return walk(shapeOf(schema), data, [], undefined, change) as T;
}

/** All declared fields that hold something, in the order of the schema. */
export function fieldsOf(schema: z.ZodType, data: unknown): Field[] {
  const list: Field[] = [];
  withFields(schema, data, (f) => (list.push(f), f.value));
  return list;
}

/** A document with the value at a place replaced; the same object where the place is not there. */
export function withValue<T>(data: T, path: Path, value: unknown): T {
  const [key, ...rest] = path;
  if (key === undefined) return value as T;
  if (typeof data !== "object" || data === null || !(key in data)) return data;
  const old = (data as Record<string | number, unknown>)[key];
  const next = withValue(old, rest, value);
  if (next === old) return data;
  if (Array.isArray(data)) return data.map((v, i) => (i === Number(key) ? next : v)) as T;
  return { ...data, [key]: next };
}

export const pathText = (path: Path): string => path.join(".");
export const readPath = (text: string): Path => text.split(".");

/** Places in a schema whose numbers and texts nobody has declared: for the test that there are none. */
export function undeclared(schema: z.ZodType, path = "", seen = new Set<unknown>()): string[] {
  const def = defOf(schema);
  if (declarations.has(schema) || seen.has(schema)) return [];
  if (def.type === "number" || def.type === "string") return [path];
  const below: (readonly [string, z.core.$ZodType])[] = [
    ...Object.entries(def.shape ?? {}),
    ...[def.element, def.valueType, def.innerType].flatMap((s) => (s ? [["", s] as const] : [])),
    ...[...(def.items ?? []), ...(def.options ?? [])].map((s, i) => [String(i), s] as const),
  ];
  const next = new Set([...seen, schema]);
  return below.flatMap(([key, s]) => undeclared(s as z.ZodType, key ? `${path}.${key}` : path, next));
}

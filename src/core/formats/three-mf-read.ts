import { strFromU8, unzipSync } from "fflate";
import { SaxesParser, type SaxesTagPlain } from "saxes";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { MOST_FACETS, type Facets } from "@/core/geometry/facets";

/** Bytes that a package may unpack to, all its models together. */
const MOST_UNPACKED = 60_000_000;
/** Places of objects, and objects within objects. */
const MOST_PLACES = 200;
const DEEPEST = 8;

/** Millimetres a unit (3MF Core Specification 1.3, 3.4). */
const UNITS: Record<string, number> = {
  micron: 0.001,
  millimeter: 1,
  centimeter: 10,
  inch: 25.4,
  foot: 304.8,
  meter: 1000,
};

/** Twelve numbers: where the axes go, then the origin; points are rows. */
type Transform = readonly number[];
const STAYS: Transform = [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0];
interface Placed {
  readonly object: string;
  readonly by: Transform;
}
interface Model {
  readonly unit: number;
  readonly objects: ReadonlyMap<
    string,
    { readonly points: number[]; readonly corners: number[]; readonly parts: Placed[] }
  >;
  readonly items: readonly Placed[];
}

/** A file that ends its own reading, with the sentence that says why. */
class BadFile extends Error {}

/** Reads the mesh of a 3MF package, in mm; objects placed by its build are put together. */
export function readThreeMf(bytes: Uint8Array): Outcome<Facets> {
  try {
    const models = new Map(
      Object.entries(unpacked(bytes)).map(([path, xml]) => [path, readModel(strFromU8(xml), path)]),
    );
    const root = [...models].find(([, m]) => m.items.length)?.[1];
    if (!root) throw new BadFile("The 3MF package places no object.");
    return done(assembled(root, models));
  } catch (e) {
    if (e instanceof BadFile) return refuse("bad-file", e.message);
    return refuse("bad-file", "The 3MF package cannot be read: it is damaged, or no 3MF package.");
  }
}

/** The models in a package by their paths; nothing else is unpacked. */
function unpacked(bytes: Uint8Array): Record<string, Uint8Array> {
  let sum = 0;
  const files = unzipSync(bytes, {
    filter: ({ name, originalSize }) => {
      if (!/\.model$/i.test(name)) return false;
      sum += originalSize;
      if (sum > MOST_UNPACKED) throw new BadFile("The 3MF package unpacks to more than 60 MB. Export it coarser.");
      return true;
    },
  });
  const models = Object.fromEntries(Object.entries(files).map(([name, data]) => [`/${name.replace(/^\//, "")}`, data]));
  if (!Object.keys(models).length) throw new BadFile("The 3MF package holds no model.");
  return models;
}

function transformOf(text: string | undefined): Transform {
  if (!text) return STAYS;
  const list = text.trim().split(/\s+/).map(Number);
  if (list.length !== 12 || !list.every(Number.isFinite))
    throw new BadFile("The 3MF package places an object by no numbers.");
  return list;
}

/** Objects are known by the path of their model and their id. */
function readModel(xml: string, path: string): Model {
  const objects = new Map<string, { points: number[]; corners: number[]; parts: Placed[] }>();
  const items: Placed[] = [];
  let unit = 1,
    own: { points: number[]; corners: number[]; parts: Placed[] } | undefined;
  const key = (a: Record<string, string>) => `${a["p:path"] ?? path}#${a.objectid}`;
  const parser = new SaxesParser();
  parser.on("error", () => {
    throw new BadFile("The model in the 3MF package is no XML.");
  });
  // what a document type declares could stand for anything
  parser.on("doctype", () => {
    throw new BadFile("The model in the 3MF package declares a document type.");
  });
  parser.on("opentag", ({ name, attributes: a }: SaxesTagPlain) => {
    switch (name.replace(/^.*:/, "")) {
      case "model":
        unit = UNITS[a.unit ?? "millimeter"] ?? 1;
        break;
      case "object":
        objects.set(`${path}#${a.id}`, (own = { points: [], corners: [], parts: [] }));
        break;
      case "vertex":
        own?.points.push(Number(a.x), Number(a.y), Number(a.z));
        break;
      case "triangle":
        own?.corners.push(Number(a.v1), Number(a.v2), Number(a.v3));
        if (own && own.corners.length > 3 * MOST_FACETS)
          throw new BadFile(`The file has more than ${MOST_FACETS} facets. Export it coarser.`);
        break;
      case "component":
        own?.parts.push({ object: key(a), by: transformOf(a.transform) });
        break;
      case "item":
        items.push({ object: key(a), by: transformOf(a.transform) });
    }
  });
  parser.write(xml).close();
  return { unit, objects, items };
}

function assembled(root: Model, models: ReadonlyMap<string, Model>): Facets {
  const points: number[] = [],
    corners: number[] = [];
  let places = 0;
  const place = ({ object, by }: Placed, over: readonly Transform[]): void => {
    const found = models.get(object.slice(0, object.lastIndexOf("#")))?.objects.get(object);
    if (!found) throw new BadFile("The 3MF package places an object that is not in it.");
    if (++places > MOST_PLACES || over.length > DEEPEST)
      throw new BadFile("The 3MF package holds an assembly of many parts. Hand in the one part.");
    const all = [by, ...over],
      first = points.length / 3;
    for (let i = 0; i < found.points.length; i += 3) {
      let p = found.points.slice(i, i + 3);
      for (const t of all) p = [0, 1, 2].map((k) => p[0]! * t[k]! + p[1]! * t[3 + k]! + p[2]! * t[6 + k]! + t[9 + k]!);
      points.push(...p.map((v) => v * root.unit));
    }
    const count = found.points.length / 3;
    for (const c of found.corners) {
      if (!Number.isInteger(c) || c < 0 || c >= count)
        throw new BadFile("A facet of the 3MF package has no such corner.");
      corners.push(first + c);
    }
    if (corners.length > 3 * MOST_FACETS || points.length > 9 * MOST_FACETS)
      throw new BadFile(`The file has more than ${MOST_FACETS} facets. Export it coarser.`);
    for (const part of found.parts) place(part, all);
  };
  for (const item of root.items) place(item, []);
  if (!corners.length) throw new BadFile("The file holds no facets.");
  if (!points.every(Number.isFinite)) throw new BadFile("The file holds numbers that are none.");
  return { positions: Float64Array.from(points), triangles: Uint32Array.from(corners) };
}

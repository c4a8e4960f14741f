import type { HoleStep } from "./schema";

/** One row of a table: a screw, a thread or a drill, and the sizes of its hole as they are typed. */
interface HoleRow {
  readonly name: string;
  readonly diameter: string;
  /** The other classes of fit, where there are any: fine and coarse beside the medium of `diameter`. */
  readonly fine?: string;
  readonly coarse?: string;
  readonly head?: HoleStep["head"];
  readonly thread?: string;
}
interface HoleTable {
  readonly id: string;
  readonly label: string;
  readonly rows: readonly HoleRow[];
}

const lines = (text: string): string[][] =>
  text
    .trim()
    .split("\n")
    .map((l) => l.trim().split(/\s+/));

/** ISO 273: clearance holes fine, medium, coarse; mm. */
const CLEARANCE = lines(`
  M1.6 1.7 1.8 2
  M2 2.2 2.4 2.6
  M2.5 2.7 2.9 3.1
  M3 3.2 3.4 3.6
  M4 4.3 4.5 4.8
  M5 5.3 5.5 5.8
  M6 6.4 6.6 7
  M8 8.4 9 10
  M10 10.5 11 12
  M12 13 13.5 14.5
  M14 15 15.5 16.5
  M16 17 17.5 18.5
  M18 19 20 21
  M20 21 22 24
  M22 23 24 26
  M24 25 26 28
  M27 28 30 32
  M30 31 33 35
  M33 34 36 38
  M36 37 39 42`);
const clearances = new Map(
  CLEARANCE.map(([name, fine, medium, coarse]) => [
    name!,
    { fine: `${fine} mm`, diameter: `${medium} mm`, coarse: `${coarse} mm` },
  ]),
);

/** ISO 2306: drills before tapping threads of ISO 261; mm. Coarse pitches, then fine ones. */
const TAPPING = lines(`
  M1.6 1.25
  M2 1.6
  M2.5 2.05
  M3 2.5
  M4 3.3
  M5 4.2
  M6 5
  M8 6.8
  M10 8.5
  M12 10.2
  M14 12
  M16 14
  M18 15.5
  M20 17.5
  M22 19.5
  M24 21
  M27 24
  M30 26.5
  M33 29.5
  M36 32
  M8x1 7
  M10x1 9
  M10x1.25 8.8
  M12x1.25 10.8
  M12x1.5 10.5
  M16x1.5 14.5
  M20x1.5 18.5`);

/** Heads: diameter and height; mm. ISO 4762, ISO 1207, ISO 7045. */
const HEADS: Record<string, { label: string; rows: string[][] }> = {
  "iso-4762": {
    label: "Cap screw ISO 4762",
    rows: lines(
      "M3 5.5 3\nM4 7 4\nM5 8.5 5\nM6 10 6\nM8 13 8\nM10 16 10\nM12 18 12\nM14 21 14\nM16 24 16\n" +
        "M20 30 20\nM24 36 24\nM30 45 30\nM36 54 36",
    ),
  },
  "iso-1207": {
    label: "Cheese head ISO 1207",
    rows: lines("M1.6 3 1.1\nM2 3.8 1.4\nM2.5 4.5 1.8\nM3 5.5 2\nM4 7 2.6\nM5 8.5 3.3\nM6 10 3.9\nM8 13 5\nM10 16 6"),
  },
  "iso-7045": {
    label: "Pan head ISO 7045",
    rows: lines("M1.6 3.2 1.3\nM2 4 1.6\nM2.5 5 2.1\nM3 5.6 2.4\nM4 8 3.1\nM5 9.5 3.7\nM6 12 4.6\nM8 16 6\nM10 20 7.5"),
  },
};
/** Theoretical head diameters of countersunk screws ISO 10642, 90°; mm. */
const COUNTERSUNK = lines("M3 6.72\nM4 8.96\nM5 11.2\nM6 13.44\nM8 17.92\nM10 22.4\nM12 26.88\nM16 33.6\nM20 40.32");
/** Hexagon heads ISO 4017: room for a socket spanner (its seat's diameter) and the head's height; mm. */
const HEXAGON = lines(
  "M4 13 2.8\nM5 15 3.5\nM6 18 4\nM8 24 5.3\nM10 28 6.4\nM12 33 7.5\nM16 40 10\nM20 46 12.5\n" +
    "M24 58 15\nM30 73 18.7\nM36 82 22.5",
);
/** Pipe threads: drill before tapping; mm. ISO 228 (parallel), ISO 7 (tapered). */
const PIPE = lines("1/8 8.8 8.4\n1/4 11.8 11.2\n3/8 15.25 14.75\n1/2 19 18.25\n3/4 24.5 23.75\n1 30.75 30");
/** Unified coarse threads: drill before tapping; in. */
const UNC = lines(
  "#4-40 0.089\n#6-32 0.1065\n#8-32 0.136\n#10-24 0.1495\n1/4-20 0.201\n5/16-18 0.257\n" +
    "3/8-16 0.3125\n7/16-14 0.368\n1/2-13 0.4219\n5/8-11 0.5312\n3/4-10 0.6562\n1-8 0.875",
);
/** Clearance for inch screws, close, normal, loose; in. */
const INCH_CLEARANCE = lines(
  "1/4 17/64 9/32 19/64\n5/16 21/64 11/32 23/64\n3/8 25/64 13/32 27/64\n7/16 29/64 15/32 31/64\n" +
    "1/2 17/32 9/16 39/64\n5/8 21/32 11/16 47/64\n3/4 25/32 13/16 29/32",
);

/** Room around a head that is sunk in flush: a little wider and deeper than it (by the screw's size, mm). */
const wider = (head: number): number => (head < 6 ? 1 : head < 11 ? 1.5 : head < 25 ? 2 : head < 40 ? 3.5 : 4.5);
const deeper = (size: number): number => (size <= 6 ? 0.4 : size <= 20 ? 0.6 : size <= 27 ? 0.8 : 1);
const number = (n: number): string => `${Number(n.toFixed(3))} mm`;
const sizeOf = (name: string): number => Number(name.slice(1));

const gcd = (a: number, b: number): number => (b ? gcd(b, a % b) : a);
const fraction = (n: number): string => {
  const whole = Math.floor(n / 64),
    rest = n % 64,
    g = gcd(rest, 64);
  return rest ? `${whole ? `${whole} ` : ""}${rest / g}/${64 / g}` : String(whole);
};

/** Tables that hole sizes can be taken from. */
export const HOLE_TABLES: readonly HoleTable[] = [
  {
    id: "clearance",
    label: "Clearance ISO 273",
    rows: CLEARANCE.map(([name]) => ({ name: name!, ...clearances.get(name!)! })),
  },
  {
    id: "tapping",
    label: "Thread ISO 261, drill ISO 2306",
    rows: TAPPING.map(([name, drill]) => ({ name: name!, diameter: `${drill} mm`, thread: name! })),
  },
  ...Object.entries(HEADS).map(([id, { label, rows }]): HoleTable => ({
    id,
    label,
    rows: rows.map(([name, d, k]) => ({
      name: name!,
      ...clearances.get(name!)!,
      head: {
        kind: "counterbore",
        diameter: number(Number(d) + wider(Number(d))),
        depth: number(Number(k) + deeper(sizeOf(name!))),
      },
    })),
  })),
  {
    id: "iso-10642",
    label: "Countersunk ISO 10642",
    rows: COUNTERSUNK.map(([name, d]) => ({
      name: name!,
      ...clearances.get(name!)!,
      head: { kind: "countersink", diameter: `${d} mm`, angle: 90 },
    })),
  },
  {
    id: "iso-4017",
    label: "Hexagon ISO 4017, with spanner",
    rows: HEXAGON.map(([name, d, k]) => ({
      name: name!,
      ...clearances.get(name!)!,
      head: { kind: "counterbore", diameter: `${d} mm`, depth: number(Number(k) + deeper(sizeOf(name!))) },
    })),
  },
  {
    id: "iso-228",
    label: "Pipe thread ISO 228",
    rows: PIPE.map(([name, g]) => ({ name: `G ${name}`, diameter: `${g} mm`, thread: `G ${name}` })),
  },
  {
    id: "iso-7",
    label: "Pipe thread ISO 7",
    rows: PIPE.map(([name, , r]) => ({ name: `Rc ${name}`, diameter: `${r} mm`, thread: `Rc ${name}` })),
  },
  {
    id: "unc",
    label: "Unified coarse thread",
    rows: UNC.map(([name, drill]) => ({ name: `${name} UNC`, diameter: `${drill} in`, thread: `${name} UNC` })),
  },
  {
    id: "inch-clearance",
    label: "Clearance for inch screws",
    rows: INCH_CLEARANCE.map(([name, close, normal, loose]) => ({
      name: `${name} in`,
      fine: `${close} in`,
      diameter: `${normal} in`,
      coarse: `${loose} in`,
    })),
  },
  {
    id: "inch-drills",
    label: "Fractional inch drills",
    rows: Array.from({ length: 61 }, (_, i) => ({ name: `${fraction(i + 4)} in`, diameter: `${fraction(i + 4)} in` })),
  },
];

export type Fit = "fine" | "medium" | "coarse";

/** A hole with the sizes of a row; what the table says nothing of stays. */
export function fromTable(step: HoleStep, table: HoleTable, row: HoleRow, fit: Fit): HoleStep {
  const { thread: _, ...rest } = step;
  const diameter = fit === "medium" ? row.diameter : (row[fit] ?? row.diameter);
  return {
    ...rest,
    diameter,
    head: row.head ?? { kind: "plain" },
    from: { table: table.id, row: row.name, ...(row.fine && { fit }) },
    ...(row.thread && { thread: { name: row.thread } }),
  };
}

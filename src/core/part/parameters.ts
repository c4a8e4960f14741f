import { z } from "zod";
import { isReserved, readQuantity, type LengthUnit, type Names, type Value } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { Given } from "@/core/sketch/sketch";
import { means } from "@/core/naming/field";
import { plainText } from "@/core/units/text";

/** A named number of the part, usable in every size. */
export const ParameterSchema = z.strictObject({
  name: means(plainText().regex(/^[A-Za-z][A-Za-z0-9_]{0,39}$/), "name"),
  value: means(z.union([z.number(), plainText().max(200)]), (p: { kind?: "length" | "angle" }) => p.kind ?? "length"),
  kind: z.enum(["length", "angle"]).optional(),
});
export type Parameter = z.infer<typeof ParameterSchema>;

const asValue = (p: Parameter, n: number): Value =>
  p.kind === "angle" ? { n, length: 0, angle: 1 } : { n, length: 1, angle: 0 };

/** Reads every parameter; each may name those before and after it. @returns mm and radians by name, or what is wrong */
export function readParameters(list: readonly Parameter[], unit: LengthUnit): Outcome<ReadonlyMap<string, Value>> {
  const values = new Map<string, Value>(),
    open: string[] = [];
  let fault: { name: string; sentence: string } | undefined;
  const value = (p: Parameter): Value | undefined => {
    const known = values.get(p.name);
    if (known) return known;
    open.push(p.name);
    const r = readQuantity(p.value, p.kind ?? "length", unit, (name) => {
      const other = list.find((o) => o.name === name);
      if (!other) return undefined;
      if (open.includes(name))
        return `it goes round in a circle (${[...open.slice(open.indexOf(name)), name].join(" → ")})`;
      return value(other) ?? `“${name}” has no value`;
    });
    open.pop();
    if (!r.ok) return void (fault ??= { name: p.name, sentence: `Parameter ${p.name}: ${r.refusal.sentence}` });
    const v = asValue(p, r.value);
    values.set(p.name, v);
    return v;
  };
  for (const [i, p] of list.entries()) {
    if (isReserved(p.name))
      return refuse("bad-name", `“${p.name}” cannot name a parameter: it is a unit or a function.`, [p.name]);
    if (list.findIndex((o) => o.name === p.name) !== i)
      return refuse("bad-name", `Two parameters are called “${p.name}”.`, [p.name]);
    if (value(p) === undefined && fault) return refuse("bad-number", fault.sentence, [fault.name]);
  }
  return done(values);
}

/** What has parameters: a part. */
interface Named {
  readonly parameters?: readonly Parameter[] | undefined;
  readonly units: LengthUnit;
}

/** What the parameters of a part are called in its sizes. */
export function parameterNames(document: Named): Names {
  if (!document.parameters?.length) return () => undefined;
  const read = readParameters(document.parameters, document.units);
  return (name) => (read.ok ? read.value.get(name) : undefined);
}

/** The parameters as sketches take them; none where they cannot be read. */
export function givenBy(document: Named): Given[] {
  const read = readParameters(document.parameters ?? [], document.units);
  if (!read.ok) return [];
  return [...read.value].map(([name, v]) => ({ name, value: v.n, kind: v.angle ? "angle" : "length" }));
}

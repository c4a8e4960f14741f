import { printable } from "@/core/units/text";

/** Attributes of an SVG element; numbers are written with at most 3 decimals. */
type Attributes = Record<string, string | number | undefined>;

export const escaped = (s: string): string => printable(s).replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
export const figure = (n: number): string => String(Math.round(n * 1000) / 1000 + 0);

/** One element as text; children must be markup already, text goes through `escaped`. */
export function element(name: string, attributes: Attributes, ...children: string[]): string {
  const text = Object.entries(attributes)
    .filter(([, v]) => v !== undefined)
    .map(([k, v]) => ` ${k}="${typeof v === "number" ? figure(v) : escaped(v!)}"`)
    .join("");
  return children.length ? `<${name}${text}>${children.join("")}</${name}>` : `<${name}${text}/>`;
}

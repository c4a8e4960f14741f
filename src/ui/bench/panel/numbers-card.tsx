"use client";

import { useState } from "react";
import type { Parameter } from "@/core/part/parameters";
import { readParameters } from "@/core/part/parameters";
import { numbersOf, withNumber } from "@/core/part/numbers";
import { angleText, lengthText } from "@/core/units/quantity";
import { NumberField } from "../../parts/number-field";
import type { BenchStore } from "../store";
import { Card } from "./card";

/** All numbers of the part in one place: named parameters, and every size of every step and sketch. */
export function NumbersCard({ store }: { store: BenchStore }) {
  const document = store((s) => s.history.present),
    unit = document.units;
  const [name, setName] = useState(""),
    [value, setValue] = useState("");
  const parameters = document.parameters ?? [],
    values = readParameters(parameters, unit);
  const { run } = store.getState();
  const setParameters = (next: Parameter[]) => run({ do: "parameters", parameters: next });
  const add = () => {
    if (
      name.trim() &&
      value.trim() &&
      setParameters([
        ...parameters,
        {
          name: name.trim(),
          value: value.trim(),
          ...(value.includes("°") || /deg/.test(value) ? { kind: "angle" as const } : {}),
        },
      ])
    ) {
      setName("");
      setValue("");
    }
  };
  const field = (label: string, now: string, give: (v: string) => boolean) => (
    <NumberField width="row" ariaLabel={label} value={now} unit="" onDone={give} />
  );
  const groups = numbersOf(document);
  return (
    <Card store={store} title="Numbers" wide>
      <h3 className="quiet text-xs font-semibold">Parameters</h3>
      <table className="w-full">
        <tbody>
          {parameters.map((p, i) => {
            const v = values.ok ? values.value.get(p.name) : undefined;
            return (
              <tr key={p.name} className="border-t border-base-300">
                <td className="figures">{p.name}</td>
                <td className="text-right">
                  {field(`parameter ${p.name}`, String(p.value), (t) =>
                    setParameters(parameters.map((o, k) => (k === i ? { ...o, value: t } : o))),
                  )}
                </td>
                <td className="figures quiet w-28 text-right">
                  {v && (p.kind === "angle" ? angleText(v.n) : lengthText(v.n, unit))}
                </td>
                <td className="w-8">
                  <button
                    className="btn btn-ghost btn-xs"
                    aria-label={`Delete parameter ${p.name}`}
                    onClick={() => setParameters(parameters.filter((_, k) => k !== i))}
                  >
                    ×
                  </button>
                </td>
              </tr>
            );
          })}
          <tr className="border-t border-base-300">
            <td>
              <input
                aria-label="New parameter's name"
                placeholder="name"
                className="input input-xs w-28"
                value={name}
                onChange={(e) => setName(e.target.value)}
                onKeyDown={(e) => e.key !== "Escape" && e.stopPropagation()}
              />
            </td>
            <td className="text-right">
              <input
                aria-label="New parameter's value"
                placeholder={unit === "mm" ? "12 mm" : "1/2 in"}
                className="input input-xs figures w-32 text-right"
                value={value}
                onChange={(e) => setValue(e.target.value)}
                onKeyDown={(e) => {
                  if (e.key !== "Escape") e.stopPropagation();
                  if (e.key === "Enter") add();
                }}
              />
            </td>
            <td colSpan={2} className="text-right">
              <button className="btn btn-xs" onClick={add}>
                Add
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p className="quiet py-1 text-xs">A name can stand in any size: =2*width+3.</p>
      {groups.map((g) => (
        <section key={g.step}>
          <h3 className="quiet border-t border-base-300 pt-1.5 text-xs font-semibold">{g.title}</h3>
          {g.numbers.map((n) => (
            <div key={n.path} className="flex items-center justify-between py-0.5">
              <span>{n.label}</span>
              {field(`${g.title}: ${n.label}`, String(n.value), (t) => {
                const command = withNumber(document, g.step, n.path, t);
                return command ? run(command) : false;
              })}
            </div>
          ))}
        </section>
      ))}
    </Card>
  );
}

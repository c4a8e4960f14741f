"use client";

import { useRef, useState } from "react";
import { importNotice, readDxf } from "@/core/formats/dxf-read";
import { writeDxf } from "@/core/formats/dxf-write";
import { sketchSvg } from "@/core/formats/sketch-svg";
import { DATUM_PLANES } from "@/core/geometry/frame";
import { idsFor } from "@/core/sketch/edit/rewire";
import { measuredValue } from "@/core/sketch/settle";
import { relationText } from "@/core/sketch/sentences";
import { quantityOf } from "@/core/sketch/sketch";
import type { Sketch } from "@/core/sketch/sketch";
import { FINDABLE, useFinding } from "../sketch/finding";
import { diagnosisOf, sketchOf, type BenchStore } from "../store";
import { trayRows } from "../tray/rows";
import { Card } from "./card";
import { download } from "./download";
import { SolidPanel } from "./solid-cards";

/** The card asked for, over the model. */
export function PanelCards({ store }: { store: BenchStore }) {
  const panel = store((s) => s.panel);
  const mode = store((s) => s.mode);
  const part = store((s) => s.history.present);
  const sketch = mode.kind === "sketch" ? sketchOf(part, mode.step) : undefined;
  if (panel === "help") return <HelpSheet store={store} isSketch={sketch !== undefined} />;
  if (!sketch) return panel ? <SolidPanel store={store} panel={panel} /> : null;
  if (panel === "sizes") return <SizesCard key={part.steps.length} store={store} sketch={sketch} />;
  if (panel === "finding") return <FindingCard store={store} />;
  if (panel === "files")
    return <FilesCard store={store} sketch={sketch} name={part.name} step={mode.kind === "sketch" ? mode.step : ""} />;
  return null;
}

/** Every size of the sketch: change several first, solve once. */
function SizesCard({ store, sketch }: { store: BenchStore; sketch: Sketch }) {
  const unit = store((s) => s.history.present.units);
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const changed = sketch.dimensions.filter((d) => typed[d.id] !== undefined && typed[d.id] !== String(d.value));
  const accept = () => {
    if (
      !changed.length ||
      store.getState().draw({ do: "resize-all", sizes: changed.map((d) => ({ id: d.id, value: typed[d.id]!.trim() })) })
    )
      setTyped({});
  };
  return (
    <Card store={store} title="Sizes" wide>
      {!sketch.dimensions.length && (
        <p className="quiet">No sizes yet. Take Dimension below, or type numbers while drawing.</p>
      )}
      <form onSubmit={(e) => (e.preventDefault(), accept())}>
        <table className="w-full">
          <thead>
            <tr className="quiet text-left text-xs">
              <th className="font-normal">called</th>
              <th className="font-normal">what</th>
              <th className="text-right font-normal">value</th>
              <th className="text-right font-normal">measures</th>
            </tr>
          </thead>
          <tbody>
            {sketch.dimensions.map((dimension) => (
              <tr key={dimension.id} className="border-t border-base-300">
                <td className="figures pr-2">{dimension.name ?? dimension.id}</td>
                <td className="pr-2">{relationText(dimension, unit, sketch)}</td>
                <td className="text-right">
                  {dimension.reference ? (
                    <span className="quiet">only measures</span>
                  ) : (
                    <input
                      aria-label={`size ${dimension.id}`}
                      className={`figures w-28 rounded-field border bg-base-100 px-1 text-right
                        ${changed.includes(dimension) ? "border-accent" : "border-base-content/40"}`}
                      value={typed[dimension.id] ?? String(dimension.value)}
                      onChange={(e) => setTyped({ ...typed, [dimension.id]: e.target.value })}
                      onKeyDown={(e) => e.key !== "Escape" && e.stopPropagation()}
                    />
                  )}
                </td>
                <td className="figures pl-2 text-right">
                  {measuredValue(sketch, dimension, unit).toFixed(unit === "mm" ? 3 : 4)}{" "}
                  {quantityOf(dimension) === "angle" ? "°" : unit}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <div className="flex items-center justify-between pt-2">
          <span className="quiet">
            {changed.length ? `${changed.length} changed` : "Change several, then solve once."}
          </span>
          <button className="btn btn-primary btn-sm" disabled={!changed.length}>
            Solve at once
          </button>
        </div>
      </form>
    </Card>
  );
}

function FindingCard({ store }: { store: BenchStore }) {
  const { kinds, toggle } = useFinding();
  return (
    <Card store={store} title="Found while drawing">
      {FINDABLE.map(([k, label]) => (
        <label key={k} className="flex items-center gap-2 py-0.5">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={kinds.includes(k)}
            onChange={() => toggle(k)}
          />
          {label}
        </label>
      ))}
      <p className="quiet pt-1 text-xs">
        Remembered in this browser. Shift held leaves all of them out for one click; equal sizes are never guessed.
      </p>
    </Card>
  );
}

function FilesCard({ store, sketch, name, step }: { store: BenchStore; sketch: Sketch; name: string; step: string }) {
  const datum = "base" in sketch.plane ? sketch.plane : undefined;
  const unit = store((s) => s.history.present.units);
  const file = useRef<HTMLInputElement>(null);
  const [said, setSaid] = useState("");
  const solved = diagnosisOf(sketch, unit)?.sketch ?? sketch,
    slug = name.toLowerCase().replace(/\W+/g, "-");
  const take = async (f: File | undefined) => {
    if (!f) return;
    const r = readDxf(await f.text(), idsFor(sketch), unit);
    if (!r.ok) return setSaid(r.refusal.sentence);
    const { curves, constraints, unit: own } = r.value;
    if (store.getState().draw({ do: "draw", curves, constraints })) {
      store.getState().fit();
      setSaid(`${curves.length} curves taken in ${own}. ${importNotice(r.value)}`);
    }
  };
  return (
    <Card store={store} title="Files and plane">
      <div className="flex flex-wrap gap-2">
        <input
          ref={file}
          type="file"
          accept=".dxf"
          aria-label="DXF file"
          className="hidden"
          onChange={(e) => void take(e.target.files?.[0]).then(() => (file.current!.value = ""))}
        />
        <button className="btn btn-sm btn-primary" onClick={() => file.current!.click()}>
          Bring in DXF …
        </button>
        <button
          className="btn btn-sm"
          onClick={() => download(`${slug}.dxf`, writeDxf(solved, "2000"), "application/dxf")}
        >
          DXF 2000
        </button>
        <button
          className="btn btn-sm"
          onClick={() => download(`${slug}-r12.dxf`, writeDxf(solved, "R12"), "application/dxf")}
        >
          DXF R12
        </button>
        <button className="btn btn-sm" onClick={() => download(`${slug}.svg`, sketchSvg(solved), "image/svg+xml")}>
          SVG
        </button>
      </div>
      {said && (
        <p role="status" className="pt-2">
          {said}
        </p>
      )}
      <h3 className="quiet pt-3 text-xs font-semibold">Plane of this sketch</h3>
      <div className="flex gap-2 pt-1">
        <span className="join">
          {DATUM_PLANES.map((base) => (
            <button
              key={base}
              aria-pressed={datum?.base === base}
              className={`btn btn-sm join-item ${datum?.base === base ? "btn-primary" : ""}`}
              onClick={() => store.getState().movePlane({ ...datum, base })}
            >
              {base}
            </button>
          ))}
        </span>
        <button className="btn btn-sm" onClick={() => store.getState().choosePlane(step)}>
          Another plane or face …
        </button>
      </div>
    </Card>
  );
}

/** Every key, by its place in the tray. */
function HelpSheet({ store, isSketch }: { store: BenchStore; isSketch: boolean }) {
  const common = [
    ["Enter", "accepts, places what is typed, ends a spline"],
    ["Escape", "out one level"],
    ["Shift", "held: finds nothing; picks more"],
    ["Tab", "to the numbers of what is drawn"],
    ["Ctrl Z · Ctrl Y", "undo · redo"],
    ["Ctrl C · X · V", "copy, cut, paste curves"],
    ...(isSketch
      ? [
          ["Arrows", "move a pointer over the paper, ten steps with Shift"],
          ["Space", "presses where it stands"],
          ["Ctrl and arrows", "move the view"],
        ]
      : [
          ["Arrows", "turn the model, move it with Shift"],
          ["N · B", "on to the next face, edge or corner · back; Page down and up also while typing"],
          ["Space", "takes it"],
        ]),
    ["+ · −", "nearer, farther"],
    ["Home", "fit"],
    ["Delete", "removes what is picked"],
  ];
  return (
    <Card store={store} title="Keys" wide>
      <div className="grid grid-cols-2 gap-x-5 text-xs leading-snug">
        {trayRows(isSketch).map((row) => (
          <div key={row.name} className="pb-2">
            <h3 className="quiet text-xs font-semibold">{row.name}</h3>
            {row.tools.map((t) => (
              <p key={t.key} className="flex gap-2">
                <kbd className="figures w-4 text-center text-accent">{t.key}</kbd>
                <span>
                  <b className="font-medium">{t.label}</b> <span className="quiet">{t.help}</span>
                </span>
              </p>
            ))}
          </div>
        ))}
        <div>
          <h3 className="quiet text-xs font-semibold">Everywhere</h3>
          {common.map(([k, what]) => (
            <p key={k}>
              <kbd className="figures text-accent">{k}</kbd> <span className="quiet">{what}</span>
            </p>
          ))}
        </div>
      </div>
    </Card>
  );
}

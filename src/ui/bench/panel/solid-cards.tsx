"use client";

import { DATUM_FRAMES, normalOf } from "@/core/geometry/frame";
import { add3, dot3, scale3 } from "@/core/geometry/vector";
import { faceRef } from "@/core/part/reference/make";
import { strayThings } from "@/core/part/strays";
import { inUnit, readQuantity } from "@/core/units/quantity";
import { NumberField } from "../../parts/number-field";
import type { Looking, PanelName } from "../state";
import type { BenchStore } from "../store";
import { Choice, Tick } from "../steps/card";
import { isSeen } from "../view/paint";
import { Card } from "./card";
import { MassCard } from "./mass-card";
import { NumbersCard } from "./numbers-card";
import { download } from "./download";

/** Cards over the solid. */
export function SolidPanel({ store, panel }: { store: BenchStore; panel: PanelName }) {
  if (panel === "numbers") return <NumbersCard store={store} />;
  if (panel === "look") return <LookCard store={store} />;
  if (panel === "out") return <OutCard store={store} />;
  if (panel === "strays") return <StraysCard store={store} />;
  if (panel === "mass") return <MassCard store={store} />;
  return panel === "colour" ? <ColourCard store={store} /> : null;
}

/** How the solid is looked at; numbers never change by it. */
function LookCard({ store }: { store: BenchStore }) {
  const looking = store((s) => s.looking),
    camera = store((s) => s.camera),
    built = store((s) => s.built),
    unit = store((s) => s.history.present.units);
  const { look } = store.getState(),
    { section } = looking,
    box = built?.properties?.box;
  const cut = (base: "front" | "top" | "right"): Looking["section"] => ({
    base,
    flip: false,
    offset: box ? Math.round(dot3(normalOf(DATUM_FRAMES[base]), scale3(add3(box.min, box.max), 0.5)) * 10) / 10 : 0,
  });
  return (
    <Card store={store} title="Look" aside>
      <div className="space-y-2.5">
        <Choice
          small
          label="Display"
          value={looking.faces}
          of={[
            ["both", "Faces and edges"],
            ["faces", "Faces"],
            ["visible", "Visible edges"],
            ["all", "All edges"],
          ]}
          onChange={(faces) => look({ faces })}
        />
        <div>
          <div className="quiet text-xs">Edges where faces run on smoothly</div>
          <Choice
            small
            label="Tangent edges"
            value={looking.tangent}
            of={[
              ["shown", "shown"],
              ["thin", "thin"],
              ["off", "off"],
            ]}
            onChange={(tangent) => look({ tangent })}
          />
        </div>
        <div>
          <div className="quiet text-xs">Eye</div>
          <Choice
            small
            label="Eye"
            value={camera.perspective ? "perspective" : "parallel"}
            of={[
              ["parallel", "Parallel"],
              ["perspective", "Perspective"],
            ]}
            onChange={(k) => {
              camera.setPerspective(k === "perspective");
              look({});
            }}
          />
        </div>
        <div>
          <div className="quiet text-xs">Section by a plane</div>
          <Choice
            small
            label="Section"
            value={section?.base ?? "none"}
            of={[
              ["none", "none"],
              ["front", "front"],
              ["top", "top"],
              ["right", "right"],
            ]}
            onChange={(k) => look({ section: k === "none" ? undefined : cut(k) })}
          />
          {section && (
            <div className="flex items-center gap-2 pt-1">
              <NumberField
                width="row"
                ariaLabel="Section at"
                unit={unit}
                value={String(Number(inUnit(section.offset, unit).toFixed(4)))}
                read={(text) => readQuantity(text, "length", unit)}
                onChange={(text) => {
                  const at = readQuantity(text, "length", unit);
                  if (at.ok) look({ section: { ...section, offset: at.value } });
                }}
              />
              <button className="btn btn-xs" onClick={() => look({ section: { ...section, flip: !section.flip } })}>
                Other side
              </button>
            </div>
          )}
        </div>
        <div className="flex gap-4">
          <Tick label="planes" on={looking.planes} onChange={(planes) => look({ planes, single: {} })} />
          <Tick label="axes, points" on={looking.axes} onChange={(axes) => look({ axes, single: {} })} />
          <Tick label="unused sketches" on={looking.sketches} onChange={(sketches) => look({ sketches, single: {} })} />
        </div>
        <SingleTicks store={store} />
        {(built?.bodies.length ?? 0) > 1 && (
          <div role="group" aria-label="Bodies">
            <div className="quiet text-xs">Bodies</div>
            {built!.bodies.map((body) => (
              <div key={body.id} className="flex items-center justify-between">
                <Tick
                  label={body.id}
                  on={!looking.hidden.includes(body.id)}
                  onChange={(on) =>
                    look({ hidden: on ? looking.hidden.filter((h) => h !== body.id) : [...looking.hidden, body.id] })
                  }
                />
                <button
                  className="btn btn-ghost btn-xs"
                  onClick={() => look({ hidden: built!.bodies.filter((o) => o !== body).map((o) => o.id) })}
                >
                  Show only this
                </button>
              </div>
            ))}
          </div>
        )}
        <div>
          <div className="quiet text-xs">
            Fineness of the picture; facets are only the picture, numbers come from the exact surfaces
          </div>
          <Choice
            small
            label="Fineness"
            value={String(looking.fineness)}
            of={[
              ["0.5", "coarse"],
              ["1", "usual"],
              ["4", "fine"],
              ["16", "finest"],
            ]}
            onChange={(f) => look({ fineness: Number(f) })}
          />
        </div>
      </div>
    </Card>
  );
}

/** Sketches, planes, axes and points one by one. */
function SingleTicks({ store }: { store: BenchStore }) {
  const looking = store((s) => s.looking),
    { steps } = store((s) => s.history.present);
  const used = new Set(steps.flatMap((s) => ("sketch" in s && typeof s.sketch === "string" ? [s.sketch] : [])));
  const list = steps.flatMap((step, i) =>
    step.kind === "sketch" || step.kind === "plane" || step.kind === "axis" || step.kind === "point"
      ? [
          {
            id: step.id,
            text: step.name ?? `${step.kind} ${i + 1}`,
            on: isSeen(
              looking,
              step.id,
              step.kind === "sketch"
                ? looking.sketches && !used.has(step.id)
                : step.kind === "plane"
                  ? looking.planes
                  : looking.axes,
            ),
          },
        ]
      : [],
  );
  if (!list.length) return null;
  return (
    <div role="group" aria-label="One by one" className="max-h-28 overflow-y-auto border-t border-base-300 pt-1.5">
      <div className="quiet text-xs">One by one</div>
      <div className="grid grid-cols-2 gap-x-3 gap-y-0.5">
        {list.map((o) => (
          <Tick
            key={o.id}
            label={o.text}
            on={o.on}
            onChange={(on) => store.getState().look({ single: { ...looking.single, [o.id]: on } })}
          />
        ))}
      </div>
    </div>
  );
}

/** Files of the solid for other programs. */
function OutCard({ store }: { store: BenchStore }) {
  const document = store((s) => s.history.present),
    fineness = store((s) => s.looking.fineness);
  const slug = document.name.toLowerCase().replace(/[^a-z0-9]+/g, "-") || "part";
  const give = (format: "step" | "stl" | "3mf") => () =>
    store
      .getState()
      .ask({ ask: "file", format, document, fineness })
      .then(
        (a) => "bytes" in a && download(`${slug}.${format}`, a.bytes as never, "application/octet-stream"),
        (e: Error) =>
          store.getState().say({ kind: "trouble", text: `The file could not be written: ${e.message}.`, about: [] }),
      );
  return (
    <Card store={store} title="Files" aside>
      <p className="quiet pb-2">
        STEP holds the exact surfaces, with name and colours. STL and 3MF hold facets, as fine as the picture (see
        Look).
      </p>
      <div className="flex gap-2">
        <button className="btn btn-sm" onClick={give("step")}>
          STEP
        </button>
        <button className="btn btn-sm" onClick={give("stl")}>
          STL
        </button>
        <button className="btn btn-sm" onClick={give("3mf")}>
          3MF
        </button>
      </div>
      <h3 className="quiet pt-3 text-xs font-semibold">Units of the part</h3>
      <Choice
        small
        label="Units"
        value={document.units}
        of={[
          ["mm", "mm"],
          ["in", "inch"],
        ]}
        onChange={(units) => store.getState().run({ do: "units", units })}
      />
      <p className="quiet pt-1 text-xs">Sizes typed so far get their old unit written out; nothing changes its size.</p>
    </Card>
  );
}

/** What nothing uses, and what hangs together with nothing. */
function StraysCard({ store }: { store: BenchStore }) {
  const document = store((s) => s.history.present),
    built = store((s) => s.built);
  const list = strayThings(document, built?.properties?.bodies ?? 0, built?.bodies.length ?? 0);
  return (
    <Card store={store} title="Stray things" aside>
      {!list.length && <p>Nothing strays: every sketch is used, every profile closes, the part is one body.</p>}
      <ul className="space-y-1">
        {list.map((stray, i) => (
          <li key={i} className="flex items-center justify-between gap-2">
            <span>{stray.text}</span>
            {stray.step && (
              <button
                className="btn btn-xs"
                onClick={() => {
                  const step = document.steps.find((x) => x.id === stray.step);
                  store.getState().openPanel(undefined);
                  if (step) store.getState().editStep(step);
                }}
              >
                Go there
              </button>
            )}
          </li>
        ))}
      </ul>
    </Card>
  );
}

const COLOURS = ["#8fa1ae", "#b4522b", "#44705a", "#c9a227", "#3e5c70", "#7a5a8c", "#e3dfd4", "#22292f"];

/** Colours of the body, or of the faces that are picked. */
function ColourCard({ store }: { store: BenchStore }) {
  const document = store((s) => s.history.present),
    things = store((s) => s.things),
    model = store((s) => s.built?.model);
  const faces = things.filter((t) => t.kind === "face"),
    now = document.colours ?? {};
  const put = (colour: string | undefined) => {
    const { run } = store.getState();
    if (!faces.length || !model) {
      const { body: _, ...rest } = now;
      return run({
        do: "colours",
        colours: colour ? { ...rest, body: colour } : rest.faces?.length ? rest : undefined,
      });
    }
    const refs = faces.flatMap((t) => faceRef(model, t.index) ?? []),
      others = (now.faces ?? []).filter(
        (f) => !refs.some((r) => r.face === f.on.face && JSON.stringify(r.at) === JSON.stringify(f.on.at)),
      );
    const next = [...others, ...(colour ? refs.map((on) => ({ on, colour })) : [])],
      { faces: _, ...rest } = now;
    return run({ do: "colours", colours: next.length ? { ...rest, faces: next } : rest.body ? rest : undefined });
  };
  return (
    <Card store={store} title="Colour" aside>
      <p className="quiet pb-2">
        {faces.length
          ? `For the ${faces.length} face${faces.length > 1 ? "s" : ""} picked.`
          : "For the whole body; pick faces first to colour them alone."}{" "}
        The density stays that of the material.
      </p>
      <div className="flex flex-wrap gap-1.5">
        {COLOURS.map((c) => (
          <button
            key={c}
            aria-label={`Colour ${c}`}
            className="size-7 rounded-field border border-base-content/40"
            style={{ background: c }}
            onClick={() => put(c)}
          />
        ))}
        <input type="color" aria-label="Another colour" className="size-7" onChange={(e) => put(e.target.value)} />
        <button className="btn btn-sm" onClick={() => put(undefined)}>
          None
        </button>
      </div>
    </Card>
  );
}

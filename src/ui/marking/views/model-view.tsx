"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import { findingWord } from "@/core/check/findings/finding";
import type { ReportPicture } from "@/core/check/check";
import type { ShapeEvidence } from "@/core/check/kinds/shape/kind";
import { add3, distance3, dot3, scale3, sub3, type Vec2, type Vec3, eachAxis } from "@/core/geometry/vector";
import { percentText, volumeText } from "@/core/units/amounts";
import type { LengthUnit } from "@/core/units/quantity";
import type { Camera } from "../../bench/view/camera";
import { facesAt } from "../../bench/view/pick";
import type { Layer } from "../../bench/view/scene";
import { UnfoldedBox } from "../../bench/view/unfolded-box";
import { useCamera, Viewport } from "../../bench/view/viewport";
import { DeviationScale, useDeviation } from "../deviation";
import { boxOfMesh, cornersOf } from "../picture";
import { PlaceLabels, type PlaceLabel } from "../place-labels";
import { SectionBar, type Section } from "./section-bar";

export type ModelLook = "difference" | "reference" | "submission" | "edges" | "section" | "deviation";

const FOOT = "flex min-h-11 flex-wrap items-center gap-x-6 gap-y-1 border-t border-base-300 px-4 py-1.5 text-sm";

/** The part against the reference, in one view that stays where it is looked from. */
export function ModelView({
  camera,
  meshes,
  look,
  shape,
  units,
  projection,
  trouble,
  pins = [],
  onPlace,
}: {
  camera: Camera;
  meshes: ReportPicture | undefined;
  look: ModelLook;
  shape: ShapeEvidence | undefined;
  units: LengthUnit;
  projection: "first-angle" | "third-angle";
  trouble: string | undefined;
  /** Remarks pinned to places. */
  pins?: readonly PlaceLabel[];
  /** Told of a place on the part that is clicked, while one is asked for. */
  onPlace?: ((at: Vec3) => void) | undefined;
}) {
  const version = useCamera(camera);
  const [section, setSection] = useState<Section>({ axis: 1, share: 0.5 });
  const deviation = useDeviation(meshes, look === "deviation");
  // the first part is brought into view; after that the view stays, so that one sees what differs
  const fitted = useRef<number>(undefined);
  useEffect(() => {
    if (!meshes) return;
    const corners = [...cornersOf(meshes.reference), ...(meshes.submission ? cornersOf(meshes.submission) : [])];
    const size = distance3(corners[0]!, corners[7]!) + (corners[15] ? distance3(corners[8]!, corners[15]) : 0);
    const was = fitted.current;
    // one in the wrong unit would fill the window, or vanish in it
    if (was && size < was * MUCH && size > was / MUCH) return;
    fitted.current = size;
    camera.fit(corners);
  }, [meshes, camera]);
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      if (e.key !== "Home" || !meshes || (e.target as Element).closest?.("input, textarea, select")) return;
      camera.fit(cornersOf(meshes.submission ?? meshes.reference));
    };
    window.addEventListener("keydown", key);
    return () => window.removeEventListener("keydown", key);
  }, [meshes, camera]);
  const layers = useMemo(
    () => (meshes ? layersOf(meshes, look, section, deviation) : []),
    [meshes, look, section, deviation],
  );
  const labels = look === "difference" ? labelsOf(shape, units) : [];
  const place = (pixel: Vec2) => {
    const mesh = meshes?.submission ?? meshes?.reference;
    const hit = mesh && facesAt(camera, mesh, pixel)[0];
    if (hit && onPlace) onPlace(pointAt(camera, pixel, hit.depth));
  };
  return (
    <div className="flex h-full flex-col">
      <div className={`relative min-h-0 flex-1 ${onPlace ? "cursor-crosshair" : ""}`}>
        <Viewport camera={camera} layers={layers} leftTurns label="Comparison" onPick={place}>
          {!meshes && (
            <p className="quiet absolute inset-x-0 top-1/3 text-center">{trouble ?? "Fetching the picture …"}</p>
          )}
          {meshes && !meshes.submission && look !== "reference" && (
            <p className="quiet absolute inset-x-0 top-1/3 text-center">There is no solid in this submission.</p>
          )}
          <PlaceLabels camera={camera} labels={[...labels, ...pins]} />
          <div className="absolute right-3 top-0" data-overlay>
            <UnfoldedBox camera={camera} projection={projection} current={version} />
          </div>
        </Viewport>
      </div>
      <div className={FOOT}>
        {look === "section" && meshes && (
          <SectionBar section={section} change={setSection} box={boxOfMesh(meshes.reference)} units={units} />
        )}
        {look === "deviation" && <DeviationNote deviation={deviation} has={meshes !== undefined} units={units} />}
        {look === "edges" && (
          <>
            <LineSample ink="--model-edge" />
            <span className="-ml-4">submission</span>
            <LineSample ink="--color-accent" dashed />
            <span className="-ml-4">reference</span>
          </>
        )}
        {(look === "difference" || look === "submission" || look === "reference") && shape && (
          <Amounts shape={shape} units={units} />
        )}
      </div>
    </div>
  );
}

/** So many times larger or smaller, and the view is fitted anew. */
const MUCH = 1.6;

function layersOf(
  meshes: ReportPicture,
  look: ModelLook,
  section: Section,
  deviation: ReturnType<typeof useDeviation>,
): Layer[] {
  const { reference, submission: own, missing, extra } = meshes;
  if (look === "reference") return [{ mesh: reference, style: "model" }];
  if (!own) return [];
  if (look === "edges")
    return [
      { mesh: own, style: "ghost" },
      { mesh: reference, style: "lines", ink: "--color-accent", dashed: true },
      { mesh: own, style: "lines" },
    ];
  if (look === "section") {
    const { low, high } = boxOfMesh(reference);
    const normal = eachAxis((i) => (i === section.axis ? NEAR[section.axis] : 0));
    const at = eachAxis((i) => low[i]! + (high[i]! - low[i]!) * section.share);
    const cut = { at, normal };
    return [
      { mesh: own, style: "model", cut, hatch: true },
      { mesh: reference, style: "lines", ink: "--color-accent", cut },
    ];
  }
  if (look === "deviation" && deviation && typeof deviation === "object")
    return [{ mesh: own, style: "model", deviation: { ...deviation.map, bands: deviation.bands } }];
  if (look !== "difference" || (!missing && !extra)) return [{ mesh: own, style: "model" }];
  return [
    { mesh: own, style: "faded" },
    ...(missing ? [{ mesh: missing, style: "missing" as const }] : []),
    ...(extra ? [{ mesh: extra, style: "extra" as const }] : []),
  ];
}

/** Which half is taken away: the one towards the usual viewer. */
const NEAR = [1, -1, 1] as const;

/** Things by name say more than amounts. */
function labelsOf(shape: ShapeEvidence | undefined, units: LengthUnit): PlaceLabel[] {
  if (!shape) return [];
  if (shape.features?.length)
    return shape.features.map((f) => ({ at: f.at, word: f.state, text: findingWord(f, { unit: units }) }));
  const lumps = [
    ...shape.missing.map((l) => ({ ...l, word: "missing" })),
    ...shape.extra.map((l) => ({ ...l, word: "extra" })),
  ];
  return lumps.map((l) => ({ at: l.centre, word: l.word, text: `${l.word} ${volumeText(l.volume, units)}` }));
}

/** The place in space under a pixel, so far towards the viewer. */
function pointAt(camera: Camera, [x, y]: Vec2, depth: number): Vec3 {
  const { target, right, up, scale, width, height, toViewer } = camera;
  const flat = add3(target, add3(scale3(right, (x - width / 2) / scale), scale3(up, (height / 2 - y) / scale)));
  return sub3(flat, scale3(toViewer, dot3(flat, toViewer) - depth));
}

function DeviationNote({
  deviation,
  has,
  units,
}: {
  deviation: ReturnType<typeof useDeviation>;
  has: boolean;
  units: LengthUnit;
}) {
  if (deviation === "busy") return <span className="quiet">Measuring how far each place lies off …</span>;
  if (deviation === "failed") return <span role="alert">The map could not be made in this browser.</span>;
  if (deviation === null) return has ? <span className="quiet">There is no part to measure.</span> : null;
  return <DeviationScale shown={deviation} units={units} />;
}

function Amounts({ shape, units }: { shape: ShapeEvidence; units: LengthUnit }) {
  const sum = (l: readonly { volume: number }[]) => l.reduce((s, x) => s + x.volume, 0);
  return (
    <>
      <Swatch colour="--color-accent" turn={45} />
      <span className="-ml-4">missing {volumeText(sum(shape.missing), units)}</span>
      <Swatch colour="--color-primary" turn={-45} />
      <span className="-ml-4">extra {volumeText(sum(shape.extra), units)}</span>
      <span className="quiet">
        {shape.finding === "scaled"
          ? "right form, wrong size"
          : `placed by ${shape.facesMatched} of ${shape.facesOfReference} faces`}
      </span>
      {shape.off > 0 && shape.finding !== "scaled" && (
        <span className="quiet">{percentText(shape.off)} of the volume</span>
      )}
    </>
  );
}

const Swatch = ({ colour, turn }: { colour: string; turn: number }) => (
  <span
    className="inline-block size-4 border"
    style={{
      borderColor: `var(${colour})`,
      background: `repeating-linear-gradient(${turn}deg, var(${colour}) 0 2px, transparent 2px 6px)`,
    }}
    aria-hidden
  />
);

const LineSample = ({ ink, dashed }: { ink: string; dashed?: boolean }) => (
  <svg width={34} height={8} aria-hidden>
    <line x1={0} y1={4} x2={34} y2={4} stroke={`var(${ink})`} strokeWidth={1.6} strokeDasharray={dashed ? "5 3" : ""} />
  </svg>
);

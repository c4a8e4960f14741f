"use client";

import { useMemo, useState } from "react";
import { findingWord } from "@/core/check/finding";
import type { ShapeEvidence } from "@/core/check/kinds/shape/kind";
import type { Vec3 } from "@/core/geometry/vector";
import { percentText, volumeText } from "@/core/units/amounts";
import type { LengthUnit } from "@/core/units/quantity";
import { Camera } from "../bench/view/camera";
import type { Layer } from "../bench/view/scene";
import { UnfoldedBox } from "../bench/view/unfolded-box";
import { useCamera, Viewport } from "../bench/view/viewport";
import { apart, LABEL } from "./apart";
import { DeviationScale, useDeviation } from "./deviation";
import { usePicture } from "./picture";

type Show = "difference" | "deviation" | "submission" | "reference";

const SHOWS: readonly (readonly [Show, string])[] = [
  ["reference", "Reference"],
  ["difference", "Difference"],
  ["deviation", "Deviation"],
  ["submission", "Submission"],
];

/** The part against the reference: either alone, what is missing and extra, and how far each place lies off. */
export function ComparisonView({
  submission,
  shape,
  units,
}: {
  submission: string;
  shape: ShapeEvidence | null;
  units: LengthUnit;
}) {
  const [camera] = useState(() => new Camera());
  const version = useCamera(camera);
  const picture = usePicture(submission, camera);
  const [show, setShow] = useState<Show>("difference");
  const deviation = useDeviation(picture.meshes, show === "deviation");
  const layers = useMemo((): Layer[] => {
    if (!picture.meshes) return [];
    const { reference, submission: own, missing, extra } = picture.meshes;
    if (show === "reference") return [{ mesh: reference, style: "model" }];
    if (show === "submission" || !own) return own ? [{ mesh: own, style: "model" }] : [];
    if (show === "deviation" && deviation && typeof deviation === "object")
      return [{ mesh: own, style: "model", deviation: { ...deviation.map, bands: deviation.bands } }];
    if (!missing && !extra) return [{ mesh: own, style: "model" }];
    return [
      { mesh: own, style: "faded" },
      ...(missing ? [{ mesh: missing, style: "missing" as const }] : []),
      ...(extra ? [{ mesh: extra, style: "extra" as const }] : []),
    ];
  }, [picture.meshes, show, deviation]);
  const sum = (l: readonly { volume: number }[]) => l.reduce((s, x) => s + x.volume, 0);
  const lumps = shape
    ? [...shape.missing.map((l) => ({ ...l, word: "missing" })), ...shape.extra.map((l) => ({ ...l, word: "extra" }))]
    : [];
  // things by name say more than amounts
  const labels = shape?.features?.length
    ? shape.features.map((f) => ({ at: f.at, word: f.state, text: findingWord(f, { unit: units }) }))
    : lumps.map((l) => ({ at: l.centre, word: l.word, text: `${l.word} ${volumeText(l.volume, units)}` }));
  return (
    <div className="flex h-full flex-col">
      <div className="flex gap-2 p-3">
        {SHOWS.map(([id, text]) => (
          <button
            key={id}
            className={`btn btn-sm ${show === id ? "border-accent bg-[var(--rust-wash)]" : ""}`}
            aria-pressed={show === id}
            onClick={() => {
              setShow(id);
              picture.fit(id);
            }}
          >
            {text}
          </button>
        ))}
      </div>
      <div className="relative min-h-0 flex-1">
        <Viewport camera={camera} layers={layers} leftTurns label="Comparison">
          {!picture.meshes && (
            <p className="quiet absolute inset-x-0 top-1/3 text-center">
              {picture.trouble ?? "Fetching the picture …"}
            </p>
          )}
          {show === "difference" && <PlaceLabels camera={camera} labels={labels} />}
          <div className="absolute right-3 top-0" data-overlay>
            <UnfoldedBox camera={camera} projection="first-angle" current={version} />
          </div>
        </Viewport>
      </div>
      {show === "deviation" && (
        <div className="border-t border-base-300 px-4 py-2 text-sm">
          {deviation === "busy" && <span className="quiet">Measuring how far each place lies off …</span>}
          {deviation === "failed" && <span role="alert">The map could not be made in this browser.</span>}
          {deviation === null && picture.meshes && <span className="quiet">There is no part to measure.</span>}
          {deviation && typeof deviation === "object" && <DeviationScale shown={deviation} units={units} />}
        </div>
      )}
      {shape && show !== "deviation" && (
        <div className="flex flex-wrap items-center gap-6 border-t border-base-300 px-4 py-2.5 text-sm">
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
        </div>
      )}
    </div>
  );
}

/** What is at each place, beside it and a line leading there; none covers another. */
function PlaceLabels({
  camera,
  labels,
}: {
  camera: Camera;
  labels: readonly { readonly at: Vec3; readonly word: string; readonly text: string }[];
}) {
  const shown = labels.slice(0, 6);
  const points = shown.map((l) => camera.toPixels(l.at));
  const places = apart(points);
  return (
    <>
      <svg className="pointer-events-none absolute inset-0 h-full w-full text-base-content">
        {places.map(([x, y], i) => (
          <path
            key={i}
            d={`M${points[i]!.join(" ")}L${x} ${y + LABEL.height / 2}`}
            stroke="currentColor"
            strokeWidth={0.8}
          />
        ))}
      </svg>
      {shown.map((l, i) => (
        <span
          key={i}
          data-lump={l.word}
          className="figures pointer-events-none absolute whitespace-nowrap bg-base-100/85 px-1 text-xs"
          style={{ left: places[i]![0], top: places[i]![1] }}
        >
          {l.text}
        </span>
      ))}
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

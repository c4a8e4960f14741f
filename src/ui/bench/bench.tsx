"use client";

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Group, Panel, Separator, usePanelRef } from "react-resizable-panels";
import { Follow } from "../parts/follow";
import { createAnswers } from "./answers";
import { AsItWas } from "./as-it-was";
import { Figures } from "./figures";
import { Gauges } from "./gauges";
import { BenchHeader } from "./header";
import { HintLine, stepHint } from "./hint-line";
import { Hints } from "./hints";
import { useBenchKeys } from "./keys";
import type { BenchProps } from "./props";
import { SheetPane } from "./sheet-pane";
import { useSheetPlace } from "./sheet-place";
import { IdleSketches, RegionLayer } from "./sketch/region-layer";
import { SketchLayer } from "./sketch/sketch-layer";
import { StepCard } from "./steps/registry";
import { PlaneCard } from "./steps/plane-card";
import { PanelCards } from "./panel/cards";
import { SketchPanel } from "./panel/sketch-panel";
import { StepList } from "./steps/step-list";
import { normalOf } from "@/core/geometry/frame";
import { MeasurePanel } from "./panel/measure-panel";
import { coloursOf, cutOf, hiddenFaces } from "./view/paint";
import { StepHandles } from "./view/step-handles";
import { SectionHandle } from "./view/section-handle";
import { pickAt, pickPlaneAt } from "./view/picking";
import { PlaneLayer } from "./view/plane-layer";
import { SolidLayer } from "./view/solid-layer";
import { frameOf } from "@/core/part/steps/sketch/schema";
import { HistoryCard } from "./history/history-card";
import { hearWork, useKeeping } from "./keeping";
import { createBench, sketchOf, type BenchStore } from "./store";
import { Tray } from "./tray/tray";
import type { Layer } from "./view/scene";
import { UnfoldedBox } from "./view/unfolded-box";
import { useOverlaid } from "./view/overlaid";
import { useCamera, Viewport } from "./view/viewport";

const WANTS_PLANE = "Sketch: click the plane it shall lie on, in the view or on the card, or a flat face of the part.";

/** The modelling screen: the Sheet at the left, the model in the middle, Steps and Gauges at the right. */
export function Bench(props: BenchProps) {
  const [store] = useState(() => (typeof window === "undefined" ? undefined : createBench(props)));
  // the Bench is drawn in the browser only: its kernel and its model live there
  const [ready, setReady] = useState(false);
  useEffect(
    () =>
      void store
        ?.getState()
        .open()
        .then(() => setReady(true)),
    [store],
  );
  if (!store || !ready) return <AsItWas />;
  return <OpenBench {...props} store={store} />;
}

function OpenBench({ store, ...p }: BenchProps & { store: BenchStore }) {
  useBenchKeys(store);
  useKeeping(store, p.history && p.saveTo);
  const [hint, setHint] = useState("");
  const [answers] = useState(() => createAnswers(`${p.owner}:${p.handIn ?? ""}`));
  // where there is room for one pane only it is the model's; the others unfold from their edges
  const [narrow] = useState(() => window.innerWidth < 900);
  // a small screen gives the model some of the Sheet's room
  const [sheetShare] = useState(() => (window.innerWidth < 1100 ? "25%" : "31%"));
  const mode = store((s) => s.mode),
    pickField = store((s) => s.pickField);
  const sheetPane = usePanelRef(),
    stepsPane = usePanelRef();
  const [place, put] = useSheetPlace(p.sheet);
  const sheetSize = place === "top" ? "36%" : sheetShare;
  const wasPut = useRef(place);
  useEffect(() => {
    if (wasPut.current === place) return;
    wasPut.current = place;
    sheetPane.current?.resize(sheetSize);
  }, [place, sheetSize, sheetPane]);
  return (
    <div className="flex h-screen flex-col overflow-hidden">
      <Follow on={p.watch} busy={!p.sheet} hear={(topic) => hearWork(store, topic, p.history && p.saveTo, p.watch)} />
      <BenchHeader
        store={store}
        answers={answers}
        {...p}
        panes={[
          ["Sheet", sheetPane],
          ["Steps", stepsPane],
        ]}
      />
      <Group orientation={place === "top" ? "vertical" : "horizontal"} className="min-h-0 flex-1">
        <Panel
          panelRef={sheetPane}
          defaultSize={narrow ? "0%" : sheetSize}
          minSize="8%"
          collapsible
          className="min-w-0"
        >
          <SheetPane
            store={store}
            sheet={p.sheet}
            trouble={p.sheetTrouble}
            heading={p.heading}
            of={p.saveTo}
            place={place}
            put={put}
          />
        </Panel>
        <Separator
          className={`${place === "top" ? "h-1.5" : "w-1.5"} bg-base-300 hover:bg-accent`}
          aria-label={place === "top" ? "Height of the Sheet" : "Width of the Sheet"}
        />
        <Panel minSize="40%" className="min-w-0">
          <Group orientation="horizontal" className="h-full">
            <Panel minSize="40%" className="flex min-w-0 flex-col">
              <div className="@container relative min-h-0 flex-1">
                <Model
                  store={store}
                  projection={p.sheet?.projection ?? "first-angle"}
                  past={p.history}
                  onHint={setHint}
                />
              </div>
              <HintLine
                store={store}
                hint={
                  mode.kind === "sketch"
                    ? hint
                    : mode.kind === "step"
                      ? stepHint(mode.draft.kind, pickField?.name)
                      : mode.kind === "plane"
                        ? WANTS_PLANE
                        : "Click picks a face, edge or corner (Shift for more, Tab for what lies behind). Drag " +
                          "turns the model, Shift and drag moves it."
                }
              />
            </Panel>
            <Separator className="w-1.5 bg-base-300 hover:bg-accent" aria-label="Width of the Steps" />
            <Panel
              panelRef={stepsPane}
              defaultSize={narrow ? "0%" : place === "top" ? "22%" : "32%"}
              minSize="14rem"
              collapsible
              className="flex min-w-0 flex-col"
            >
              <StepList store={store} />
              {mode.kind === "sketch" && <SketchPanel store={store} step={mode.step} />}
              {mode.kind === "solid" && <MeasurePanel store={store} />}
              <div className="max-h-[68%] shrink-0 overflow-y-auto">
                <Gauges store={store} sheet={p.sheet} />
                {p.figures && <Figures asked={p.figures} store={answers} />}
                {p.hints && <Hints {...p.hints} owner={p.owner} />}
              </div>
            </Panel>
          </Group>
        </Panel>
      </Group>
    </div>
  );
}

function Model({
  store,
  projection,
  past,
  onHint,
}: {
  store: BenchStore;
  projection: "first-angle" | "third-angle";
  past: BenchProps["history"];
  onHint: (h: string) => void;
}) {
  const camera = store((s) => s.camera);
  const version = useCamera(camera);
  const mode = store((s) => s.mode);
  const panel = store((s) => s.panel);
  const built = store((s) => s.built);
  const document = store((s) => s.history.present);
  const see = store((s) => s.see);
  const looking = store((s) => s.looking);
  const isAsItWas = store((s) => s.isAsItWas);
  const layers = useMemo((): Layer[] => {
    if (!built?.mesh) return [];
    const sketch = mode.kind === "sketch" ? sketchOf(document, mode.step) : undefined;
    const colours = coloursOf(document, built.model),
      hidden = hiddenFaces(built.bodies, looking.hidden);
    if (!sketch) {
      const { faces, tangent } = looking,
        plane = cutOf(looking.section);
      return [
        {
          mesh: built.mesh,
          style: "model",
          look: { faces, tangent },
          hidden,
          ...(colours && { colours }),
          ...(plane && { cut: plane, hatch: true }),
        },
      ];
    }
    if (see === "solid") return [{ mesh: built.mesh, style: "model", hidden }];
    if (see === "faded") return [{ mesh: built.mesh, style: "faded", hidden }];
    const frame = frameOf(sketch.plane);
    return [{ mesh: built.mesh, style: "model", hidden, cut: { at: frame.origin, normal: normalOf(frame) } }];
  }, [built?.mesh, built?.model, built?.bodies, mode, see, document, looking]);
  const corner = useOverlaid((w, h) => (camera.corner = [w + 24, h + 24]));
  const hint = useCallback((h: string) => onHint(h), [onHint]);
  const empty = !document.steps.length && mode.kind === "solid";
  return (
    <Viewport
      camera={camera}
      layers={layers}
      leftTurns={mode.kind !== "sketch"}
      label="Model"
      onPick={(at, grow) => {
        if (mode.kind === "plane") return pickPlaneAt(store, at);
        pickAt(store, at, grow, store.getState().behind);
      }}
    >
      {mode.kind === "sketch" && <SketchLayer key={mode.step} store={store} step={mode.step} onHint={hint} />}
      {mode.kind === "step" && <RegionLayer store={store} />}
      {mode.kind !== "sketch" && <SolidLayer store={store} />}
      {mode.kind !== "sketch" && <SectionHandle store={store} />}
      {mode.kind === "step" && <StepHandles store={store} />}
      {mode.kind === "plane" && <PlaneLayer store={store} />}
      {mode.kind === "solid" && <IdleSketches store={store} />}
      {isAsItWas && (
        <p role="status" className="quiet pointer-events-none absolute inset-x-0 bottom-44 text-center text-xs">
          The part as it was; it is being built …
        </p>
      )}
      {empty && (
        <p className="quiet pointer-events-none absolute inset-x-0 top-1/3 text-center">
          Read the Sheet, then begin with <b>Sketch</b> below.
        </p>
      )}
      <div ref={corner} className="absolute right-3 top-3" data-overlay>
        <UnfoldedBox camera={camera} projection={projection} current={version} />
      </div>
      {mode.kind === "step" && (
        <div className="absolute left-3 top-3 z-10" data-overlay>
          <StepCard store={store} draft={mode.draft} opening={mode.opening} />
        </div>
      )}
      {mode.kind === "plane" && (
        <div className="absolute left-3 top-3 z-10" data-overlay>
          <PlaneCard store={store} />
        </div>
      )}
      <PanelCards store={store} />
      {panel === "history" && past && <HistoryCard store={store} {...past} />}
      <div className="pointer-events-none absolute inset-x-1 bottom-2 flex justify-center" data-overlay>
        <Tray store={store} />
      </div>
    </Viewport>
  );
}

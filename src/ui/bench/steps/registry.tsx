"use client";

import type { ComponentType } from "react";
import type { Step } from "@/core/part/steps/kinds";
import type { BenchStore } from "../store";
import type { CardProps } from "./card";
import { ChamferCard } from "./chamfer";
import { AxisStepCard, PlaneStepCard, PointStepCard } from "./datum";
import { ExtrudeCard } from "./extrude";
import { FilletCard } from "./fillet";
import { HoleCard } from "./hole";
import { ImportedCard } from "./imported";
import { MirrorCard } from "./mirror";
import { PatternCard } from "./pattern";
import { RevolveCard } from "./revolve";
import { ShellCard } from "./shell";

/** The card of each kind of step, one line each. */
const CARDS: Record<Exclude<Step["kind"], "sketch">, unknown> = {
  extrude: ExtrudeCard,
  revolve: RevolveCard,
  hole: HoleCard,
  fillet: FilletCard,
  chamfer: ChamferCard,
  shell: ShellCard,
  mirror: MirrorCard,
  pattern: PatternCard,
  plane: PlaneStepCard,
  axis: AxisStepCard,
  point: PointStepCard,
  imported: ImportedCard,
};

export function StepCard({ store, draft, opening }: { store: BenchStore; draft: Step; opening: number }) {
  if (draft.kind === "sketch") return null;
  const Card = CARDS[draft.kind] as ComponentType<CardProps>;
  return <Card key={opening} store={store} draft={draft} change={(next) => store.getState().changeDraft(next)} />;
}

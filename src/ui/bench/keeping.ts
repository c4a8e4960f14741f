"use client";

import { useEffect } from "react";
import type { PartDocument } from "@/core/part/document";
import { LOOK } from "../parts/follow";
import { rememberLooks } from "./history/shown";
import type { BenchStore } from "./store";

/** What the Bench does about leaving, coming back, and the network. @param workUrl of a student's work */
export function useKeeping(store: BenchStore, workUrl: string | undefined): void {
  useEffect(() => {
    const { saver } = store.getState();
    const ask = (e: BeforeUnloadEvent) => saver.isAtRisk && e.preventDefault();
    const hurry = () => saver.hurry();
    window.addEventListener("beforeunload", ask);
    window.addEventListener("online", hurry);
    const forget = workUrl ? rememberLooks(store, workUrl) : undefined;
    return () => {
      window.removeEventListener("beforeunload", ask);
      window.removeEventListener("online", hurry);
      forget?.();
    };
  }, [store, workUrl]);
}

const ELSEWHERE_NOW = "The part was changed in another window: this is how it stands now.";

/**
 * Takes news of an exercise whose reference is on the Bench: what was changed elsewhere stands here at once, unless
 * something is being drawn or a card is open; then the next save tells.
 */
async function hearReference(store: BenchStore, exercise: string): Promise<void> {
  const { saver } = store.getState();
  if (saver.isBusy || saver.isReadOnly) return;
  const { version } = saver;
  const r = await fetch(`/api/exercises/${exercise}?since=${version}`, { cache: "no-store" }).catch(() => undefined);
  if (!r?.ok) return;
  const now = (await r.json()) as { version: number; theirs: { reference?: PartDocument } };
  if (saver.isBusy || saver.version !== version || now.version === version) return;
  if (!now.theirs.reference) return saver.goOn(now.version);
  const { mode, goOn } = store.getState();
  if (mode.kind !== "solid") return;
  goOn(now.theirs.reference, now.version);
  store.setState({ message: { kind: "notice", text: ELSEWHERE_NOW, about: [] } });
}

/** Takes news of the work: another window may have saved. @returns whether it was that */
export function hearWork(store: BenchStore, topic: string, workUrl: string | undefined, watch: string): boolean {
  const { saver } = store.getState();
  const [watched, exercise = ""] = watch.split(":");
  if (watched === "exercise") void hearReference(store, exercise);
  const [kind, version, window = ""] = topic.split(":");
  if (kind === "work") {
    saver.heard(Number(version), window);
    return true;
  }
  // something may have been missed
  if (topic === LOOK && workUrl)
    fetch(workUrl, { cache: "no-store" })
      .then((r) => (r.ok ? (r.json() as Promise<object>) : {}))
      .then((m: { version?: number; window?: string }) => m.version && saver.heard(m.version, m.window ?? ""))
      .catch(() => {});
  return false;
}

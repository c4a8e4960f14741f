"use client";

import { useEffect } from "react";
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

/** Takes news of the work: another window may have saved. @returns whether it was that */
export function hearWork(store: BenchStore, topic: string, workUrl: string | undefined): boolean {
  const { saver } = store.getState();
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

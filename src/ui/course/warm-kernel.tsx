"use client";

import { useEffect } from "react";
import { buildAhead } from "../bench/ahead";
import { tellWho } from "../bench/seen";
import { buildBeforehand, loadKernel } from "../bench/kernel/client";
import { WARM_PART } from "../bench/kernel/warm-part";

/** Parts that may come next warm the kernel as well as any. */
async function getReady(me: string, next: readonly string[]): Promise<void> {
  let isWarm = false;
  for (const handout of next) isWarm = (await buildAhead(me, handout)) || isWarm;
  if (!isWarm) await buildBeforehand(WARM_PART);
}

/**
 * While a student looks through the handouts, the Bench and its kernel get ready; the parts that may come next are
 * built, and any whose link is pointed at, or reached by the keyboard.
 * @param next handouts in the order of their likelihood, with commas: an effect goes by it
 */
export function WarmKernel({ me, next }: { me: string; next: string }) {
  useEffect(() => {
    tellWho(me);
    const soon = setTimeout(() => {
      loadKernel();
      void getReady(me, next ? next.split(",") : []);
      void import("../bench/bench");
      // nobody waits for it: it takes what time the page leaves
      const idle = window.requestIdleCallback ?? setTimeout;
      void import("../bench/view/stage").then((s) => idle(() => s.warmStage()));
    }, 200);
    const pointed = (e: Event) => {
      const link = e.target instanceof Element ? e.target.closest('a[href^="/bench/"]') : null;
      const handout = link?.getAttribute("href")?.split("/").pop();
      if (handout) void buildAhead(me, handout);
    };
    const kinds = ["pointerover", "focusin"] as const;
    for (const kind of kinds) document.addEventListener(kind, pointed);
    return () => {
      clearTimeout(soon);
      for (const kind of kinds) document.removeEventListener(kind, pointed);
    };
  }, [me, next]);
  return null;
}

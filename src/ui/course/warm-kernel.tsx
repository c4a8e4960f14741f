"use client";

import { useEffect } from "react";
import { tellWho } from "../bench/seen";
import { warmKernel } from "../bench/kernel/client";

/** While a student looks through the handouts, the Bench and its kernel get ready. */
export function WarmKernel({ me }: { me: string }) {
  useEffect(() => {
    tellWho(me);
    const soon = setTimeout(() => {
      warmKernel();
      void import("../bench/bench");
      // nobody waits for it: it takes what time the page leaves
      const idle = window.requestIdleCallback ?? setTimeout;
      void import("../bench/view/stage").then((s) => idle(() => s.warmStage()));
    }, 200);
    return () => clearTimeout(soon);
  }, [me]);
  return null;
}

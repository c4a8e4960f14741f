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
      void import("../bench/view/stage").then((s) => s.warmStage());
    }, 200);
    return () => clearTimeout(soon);
  }, [me]);
  return null;
}

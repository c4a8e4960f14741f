"use client";

import { useEffect } from "react";
import { warmKernel } from "../bench/kernel/client";

/** While a student looks through the handouts, the Bench and its kernel get ready. */
export function WarmKernel() {
  useEffect(() => {
    const soon = setTimeout(() => {
      warmKernel();
      void import("../bench/bench");
    }, 200);
    return () => clearTimeout(soon);
  }, []);
  return null;
}

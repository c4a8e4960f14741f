"use client";

import { useEffect } from "react";
import { warmKernel } from "../bench/kernel/client";

/** While a student looks through the handouts, the kernel gets ready for the Bench. */
export function WarmKernel() {
  useEffect(() => {
    const soon = setTimeout(warmKernel, 200);
    return () => clearTimeout(soon);
  }, []);
  return null;
}

"use client";

import { useRouter } from "next/navigation";
import { useEffect, useRef } from "react";

/** Keeps a page up to date by itself while something is still going on. Shows nothing. */
export function Follow({ url, busy }: { url: string; busy: boolean }) {
  const router = useRouter();
  const mark = useRef<string>(undefined);
  useEffect(() => {
    let live = true;
    const ask = async () => {
      try {
        const r = await fetch(url, { cache: "no-store" });
        if (!r.ok || !live) return;
        const state = (await r.json()) as { mark: string; busy: boolean };
        // what ended between the page's making and this question has to be fetched too
        if ((mark.current !== undefined && mark.current !== state.mark) || (busy && !state.busy)) router.refresh();
        mark.current = state.mark;
      } catch {
        // the network is away for a moment; the next question will tell
      }
    };
    void ask();
    // also when quiet, more slowly: others may hand in
    const timer = setInterval(() => void ask(), busy ? 700 : 5000);
    return () => {
      live = false;
      clearInterval(timer);
    };
  }, [url, busy, router]);
  return null;
}

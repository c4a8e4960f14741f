"use client";

import { useRouter } from "next/navigation";
import { useEffect, useRef } from "react";

/** Something may have been missed. */
export const LOOK = "look";

/** Whether the server can be reached, and is not being started anew. Asked of a file that costs it nothing. */
async function serverAnswers(): Promise<boolean> {
  try {
    return (await fetch("/icon.svg", { method: "HEAD", cache: "no-store" })).ok;
  } catch {
    return false;
  }
}

/** However fast things change, a page is fetched anew at most so often. */
const REST_MS = 700;
/** Without a connection it is tried again so often. */
const RETRY_MS = 3000;

/**
 * Listens while the page is in sight: a browser keeps few ways open to one server, and a hidden page needs none.
 * @param hear is told what has changed; "look" when something may have been missed
 */
export function useNews(on: string, hear: (topic: string) => void): void {
  const latest = useRef(hear);
  latest.current = hear;
  useEffect(() => {
    let source: EventSource | undefined;
    const attune = () => {
      if (document.visibilityState === "hidden") {
        source?.close();
        source = undefined;
      } else if (!source || source.readyState === EventSource.CLOSED) {
        source = new EventSource(`/api/news?on=${encodeURIComponent(on)}`);
        source.onmessage = (e: MessageEvent<string>) => latest.current(e.data);
      }
    };
    attune();
    document.addEventListener("visibilitychange", attune);
    window.addEventListener("online", attune);
    // a stream the server refused for a moment is closed for good by the browser
    const again = setInterval(attune, 5000);
    return () => {
      clearInterval(again);
      document.removeEventListener("visibilitychange", attune);
      window.removeEventListener("online", attune);
      source?.close();
    };
  }, [on]);
}

/** Keeps a page up to date by itself. Shows nothing. @param busy it waits for something that may have ended already */
export function Follow({
  on,
  busy,
  hear,
}: {
  on: string;
  busy: boolean;
  /** What the page does itself about some news; true where that is all. */
  hear?: (topic: string) => boolean;
}) {
  const router = useRouter();
  const waiting = useRef<ReturnType<typeof setTimeout>>(undefined);
  const last = useRef(0);
  const first = useRef(true);
  useNews(on, (topic) => {
    if (hear?.(topic)) return;
    const isFirst = first.current;
    first.current = false;
    // the page was made a moment ago
    if (isFirst && !busy) return;
    if (waiting.current) return;
    const refresh = async () => {
      // while the server is away the framework keeps every asking and sends them all at once when it is back
      if (!(await serverAnswers())) {
        if (waiting.current) waiting.current = setTimeout(() => void refresh(), RETRY_MS);
        return;
      }
      waiting.current = undefined;
      last.current = Date.now();
      router.refresh();
    };
    const rest = Math.max(0, last.current + REST_MS - Date.now());
    waiting.current = setTimeout(() => void refresh(), rest);
  });
  useEffect(
    () => () => {
      clearTimeout(waiting.current);
      waiting.current = undefined;
    },
    [],
  );
  return null;
}

"use client";

import { useEffect, useState } from "react";

const ASKS_MS = 2_000;

/** Whether the server, or its database, is away; `undefined` while nobody knows. */
async function isAway(): Promise<boolean | undefined> {
  try {
    const r = await fetch("/api/health", { cache: "no-store" });
    return !((await r.json()) as { database?: boolean }).database;
  } catch {
    return true;
  }
}

/** @param error carries the number under which the server's log has the rest */
export default function Failed({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  const [away, setAway] = useState<boolean>();
  useEffect(() => {
    let isOver = false,
      wasAway = false;
    const ask = async () => {
      const now = await isAway();
      if (isOver) return;
      // it is there again: the page is fetched anew
      if (wasAway && now === false) return window.location.reload();
      wasAway ||= now === true;
      setAway(now);
      if (wasAway) setTimeout(() => void ask(), ASKS_MS);
    };
    void ask();
    return () => void (isOver = true);
  }, []);
  if (away)
    return (
      <main className="mx-auto max-w-md p-12" role="status">
        <h1 className="text-xl font-semibold">The server is coming back</h1>
        <p className="mt-2">
          Its database does not answer for the moment and is being started again. Nothing already saved is lost.
        </p>
        <p className="quiet mt-4 flex items-center gap-3">
          <span className="loading loading-dots loading-sm" aria-hidden />
          This page looks every two seconds and comes back by itself.
        </p>
      </main>
    );
  return (
    <main className="mx-auto max-w-md p-12">
      <h1 className="text-xl font-semibold">Something went wrong</h1>
      <p className="mt-2">Nothing already saved is lost. What you were typing may have to be typed again.</p>
      {error.digest && <p className="quiet figures mt-2">Number {error.digest}</p>}
      <button className="btn btn-primary mt-6" onClick={reset}>
        Try again
      </button>
    </main>
  );
}

import { useEffect, useState } from "react";
import { isFrame } from "@/core/exercise/things";
import type { Clash, Heard } from "./shared-exercise";

/** Two have changed the same: theirs stands, and one's own is one click away. */
export function Clashes({
  clashes,
  called,
  settle,
}: {
  clashes: readonly Clash[];
  /** A thing of the exercise as a person would call it. */
  called: (place: string) => string;
  settle: (clash: Clash, isMine: boolean) => void;
}) {
  if (!clashes.length) return null;
  return (
    <ul role="alert" className="space-y-1 border-b border-base-300 bg-accent/10 px-4 py-2 text-sm">
      {clashes.map((c, i) => (
        <li key={`${i} ${c.place}`} className="flex flex-wrap items-center gap-3">
          <span>
            {c.by ?? "Somebody else"} has changed {called(c.place)} at the same time. Theirs stands
            {typeof c.mine === "string" ? <>; yours was “{c.mine}”.</> : "."}
          </span>
          <button className="btn btn-xs" onClick={() => settle(c, true)}>
            Put mine
          </button>
          <button className="btn btn-ghost btn-xs" onClick={() => settle(c, false)}>
            Leave theirs
          </button>
        </li>
      ))}
    </ul>
  );
}

const HEARD_MS = 12_000;
/** So many things are called by name; what is more is only said to be more. */
const NAMED = 3;

/** What somebody else has just changed: said for a while, so that nobody wonders why a field has moved. */
export function HeardNote({
  heard,
  me,
  called,
}: {
  heard: Heard | undefined;
  /** Whoever is signed in, by name. */
  me: string;
  called: (place: string) => string;
}) {
  const [over, setOver] = useState<Heard>();
  useEffect(() => {
    const timer = setTimeout(() => setOver(heard), HEARD_MS);
    return () => clearTimeout(timer);
  }, [heard]);
  if (!heard || over === heard) return null;
  const names = [
    ...new Set(
      Object.keys(heard.things)
        .filter((p) => !isFrame(p))
        .map(called),
    ),
  ];
  if (!names.length) return null;
  const who = heard.by === me ? "Another window of yours" : (heard.by ?? "Somebody else");
  const more = names.length > NAMED ? " and more" : "";
  return (
    <p role="status" className="quiet border-b border-base-300 px-4 py-1 text-sm">
      {who} has changed {names.slice(0, NAMED).join(", ")}
      {more}.
    </p>
  );
}

import type { Clash } from "./shared-exercise";

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

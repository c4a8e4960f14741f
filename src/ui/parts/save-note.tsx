import type { SaveState } from "./saver";

const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });

/** What is true of the last change, in a few words. */
function textOf(saved: SaveState): string {
  if (saved.kind === "saved")
    return saved.at ? `Kept on the server at ${clock.format(new Date(saved.at))}` : "Kept on the server";
  return saved.kind === "sending" ? "Being sent …" : saved.sentence;
}

/** Where what was changed is kept, and what can be done where it is not on the server. */
export function SaveNote({ saved, hurry }: { saved: SaveState; hurry: () => void }) {
  const isCalm = saved.kind === "saved" || saved.kind === "sending";
  return (
    <>
      <span role="status" className={`ml-auto max-w-[34rem] shrink-0 text-sm ${isCalm ? "quiet" : "text-error"}`}>
        {textOf(saved)}
      </span>
      {(saved.kind === "here" || saved.kind === "nowhere") && (
        <button className="btn btn-xs" onClick={hurry}>
          Try now
        </button>
      )}
      {saved.kind === "parted" && (
        <button className="btn btn-xs" onClick={() => window.location.reload()}>
          Take theirs
        </button>
      )}
    </>
  );
}

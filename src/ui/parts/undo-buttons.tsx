import { Redo2, Undo2 } from "lucide-react";

/** Takes the last change back, or makes it again. */
export function UndoButtons(p: { undoes: boolean; redoes: boolean; undo: () => void; redo: () => void }) {
  return (
    <>
      <button
        className="btn btn-ghost btn-xs ml-2"
        title="Undo (Ctrl Z)"
        aria-label="Undo"
        disabled={!p.undoes}
        onClick={p.undo}
      >
        <Undo2 size={15} aria-hidden />
      </button>
      <button
        className="btn btn-ghost btn-xs"
        title="Redo (Ctrl Y)"
        aria-label="Redo"
        disabled={!p.redoes}
        onClick={p.redo}
      >
        <Redo2 size={15} aria-hidden />
      </button>
    </>
  );
}

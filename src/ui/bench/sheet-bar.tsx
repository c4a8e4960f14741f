import { ChevronLeft, ChevronRight, ExternalLink, PanelLeft, PanelTop } from "lucide-react";
import type { SheetLook } from "../sheet/sheet-view";

/** Where the Sheet stands beside the model. */
export type SheetPlace = "left" | "top";

/**
 * How the Sheet is looked at: its views one by one where all of them at once are too small to be read, the whole paper,
 * and where it stands.
 */
export function SheetBar({
  look,
  place,
  put,
  openWindow,
}: {
  look: SheetLook | undefined;
  place?: SheetPlace | undefined;
  put?: ((place: SheetPlace) => void) | undefined;
  openWindow?: (() => void) | undefined;
}) {
  if (!look) return null;
  const { views, at } = look;
  const now = views.findIndex((v) => v.key === at);
  const go = (by: number) => {
    const next = views[(now + by + views.length) % views.length];
    if (next) look.showView(next.key);
  };
  const icon = "btn btn-ghost btn-xs px-1.5";
  const other = place === "left" ? "top" : "left";
  const Icon = other === "top" ? PanelTop : PanelLeft;
  return (
    <div className="absolute right-2 top-2 z-10 flex items-center rounded-field bg-base-100/90 shadow-sm" data-overlay>
      {views.length > 1 && (look.isSmall || now >= 0) && (
        <>
          <button className={icon} aria-label="The view before" disabled={now < 0} onClick={() => go(-1)}>
            <ChevronLeft size={15} aria-hidden />
          </button>
          <button
            className="btn btn-ghost btn-xs px-1"
            title={now < 0 ? "One view fills the pane" : "All that is drawn"}
            onClick={() => (now < 0 ? look.showView(views[0]!.key) : look.showDrawn())}
          >
            {now < 0 ? views[0]!.title : `${views[now]!.title}, ${now + 1} of ${views.length}`}
          </button>
          <button
            className={icon}
            aria-label="The next view"
            onClick={() => (now < 0 ? look.showView(views[0]!.key) : go(1))}
          >
            <ChevronRight size={15} aria-hidden />
          </button>
        </>
      )}
      <button className="btn btn-ghost btn-xs px-1.5" title="The whole paper (0)" onClick={look.showPaper}>
        Paper
      </button>
      {put && (
        <button
          className={icon}
          title={`The Sheet at the ${other}`}
          aria-label={`The Sheet at the ${other}`}
          onClick={() => put(other)}
        >
          <Icon size={15} aria-hidden />
        </button>
      )}
      {openWindow && (
        <button
          className={icon}
          title="The Sheet in a window of its own"
          aria-label="The Sheet in a window of its own"
          onClick={openWindow}
        >
          <ExternalLink size={15} aria-hidden />
        </button>
      )}
    </div>
  );
}

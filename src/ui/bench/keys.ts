import { useEffect } from "react";
import type { BenchStore } from "./store";
import { takeTool, trayRows } from "./tray/rows";
import { removeSelected } from "./tray/sketch-rows";

/** Which way an arrow key looks on the screen, y down. */
const ARROWS: Record<string, readonly [number, number]> = {
  arrowleft: [-1, 0],
  arrowright: [1, 0],
  arrowup: [0, -1],
  arrowdown: [0, 1],
};

/** Whether keys belong to a text that is being typed. */
const isTyped = (el: HTMLElement): boolean =>
  el instanceof HTMLTextAreaElement ||
  (el instanceof HTMLInputElement && !["checkbox", "radio", "button"].includes(el.type));

/** Whether Enter is the thing's own, being reached by the keyboard: a button that is no choice among ways, a link. */
const hasOwnEnter = (el: HTMLElement): boolean =>
  el.closest("[role=alertdialog], dialog") !== null ||
  (el.matches("button:not([aria-pressed]), a, summary") && el.matches(":focus-visible"));

/** Keys while a step's card is open, wherever the focus is. @returns whether the key was the card's */
function cardKey(store: BenchStore, e: KeyboardEvent, el: HTMLElement): boolean {
  const s = store.getState();
  if (e.key === "Escape") {
    s.leave();
    return true;
  }
  if (e.key === "Enter" && !e.repeat && !hasOwnEnter(el)) {
    s.acceptDraft();
    return true;
  }
  // a number typed after something was picked on the part is the card's
  if (/^[0-9.=-]$/.test(e.key) && !(el instanceof HTMLSelectElement)) {
    const card = document.querySelector("[data-card]");
    const field =
      card?.querySelector<HTMLInputElement>(".number-input[data-last]") ??
      card?.querySelector<HTMLInputElement>(".number-input");
    field?.focus();
    field?.select();
  }
  return false;
}

/** The keyboard of the Bench: keys by a tool's place in the tray, and the few that mean the same everywhere. */
export function useBenchKeys(store: BenchStore): void {
  useEffect(() => {
    const down = (e: KeyboardEvent) => {
      const el = e.target as HTMLElement;
      if (isTyped(el)) return;
      const s = store.getState();
      const { camera } = s;
      const key = e.key.toLowerCase();
      const done = () => e.preventDefault();
      if ((e.ctrlKey || e.metaKey) && key === "z") return (e.shiftKey ? s.redo() : s.undo(), done());
      if ((e.ctrlKey || e.metaKey) && key === "y") return (s.redo(), done());
      if ((e.ctrlKey || e.metaKey) && s.mode.kind === "sketch" && "cxv".includes(key))
        return (key === "v" ? s.paste() : s.copy(key === "x"), done());
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      if (s.mode.kind === "step" && cardKey(store, e, el)) return done();
      if (el instanceof HTMLSelectElement) return;
      if (key === "escape") return (s.leave(), done());
      if (key === "delete" || key === "backspace") {
        return (s.mode.kind === "sketch" && removeSelected(store), done());
      }
      if (key.startsWith("arrow") && !(el instanceof SVGGElement)) {
        const [dx, dy] = ARROWS[key] ?? [0, 0];
        if (e.shiftKey || s.mode.kind === "sketch") camera.pan(-dx * 40, -dy * 40);
        else camera.orbit(-dx * 32.7, -dy * 32.7);
        return done();
      }
      if (key === "+" || key === "=") return (camera.zoom(1.25), done());
      if (key === "-") return (camera.zoom(0.8), done());
      if (key === "home") return (s.fit(), done());
      if (key === "enter" && s.mode.kind === "sketch" && !(el instanceof HTMLButtonElement))
        return (s.hand.enter(), done());
      // numbers belong to what is being drawn
      if (s.mode.kind === "sketch" && s.hand.tool?.fields?.length && (/^[0-9.=]$/.test(key) || key === "tab")) {
        const [first] = document.querySelectorAll<HTMLInputElement>("[data-typing] input");
        if (!first) return;
        first.focus();
        first.select();
        return key === "tab" ? done() : undefined;
      }
      // what lies behind what is under the pointer
      if (
        key === "tab" &&
        s.mode.kind !== "sketch" &&
        (el === document.body || el.closest("[aria-label=Model]")) &&
        document.querySelector("[data-hover]")
      )
        return (store.setState({ behind: s.behind + (e.shiftKey ? -1 : 1) }), done());
      if (s.mode.kind === "step" || s.mode.kind === "plane") return;
      const tool = trayRows(s.mode.kind === "sketch")
        .flatMap((r) => r.tools)
        .find((t) => t.key === key);
      if (tool && !e.repeat) {
        takeTool(store, tool);
        done();
      }
    };
    window.addEventListener("keydown", down);
    return () => window.removeEventListener("keydown", down);
  }, [store]);
  // a part half built is kept on the server; the worker and the timers end with the page
  useEffect(() => () => store.getState().close(), [store]);
}

import { useEffect } from "react";
import type { BenchStore } from "./store";
import { takeTool, trayRows } from "./tray/rows";
import { reachOn, takeReached } from "./view/reach";
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

/** On to the next thing of the part, and back. */
const PAGES: Record<string, 1 | -1> = { PageDown: 1, PageUp: -1 };

/** The part from the keyboard: on to the next thing, back, and taking it. @returns whether the key was for that */
function reachKey(store: BenchStore, e: KeyboardEvent, el: HTMLElement): boolean {
  if (el instanceof HTMLSelectElement) return false;
  const way = { n: 1, b: -1 }[e.key.toLowerCase()] as 1 | -1 | undefined;
  if (way) reachOn(store, way);
  return way !== undefined || (e.key === " " && takeReached(store, e.shiftKey));
}

/** Keys while a step's card is open, wherever the focus is. @returns whether the key was the card's */
function cardKey(store: BenchStore, event: KeyboardEvent, el: HTMLElement): boolean {
  const state = store.getState();
  if (event.key === "Escape") {
    state.leave();
    return true;
  }
  if (event.key === "Enter" && !event.repeat && !hasOwnEnter(el)) {
    state.acceptDraft();
    return true;
  }
  // a number typed after something was picked on the part is the card's
  if (/^[0-9.=-]$/.test(event.key) && !(el instanceof HTMLSelectElement)) {
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
    const down = (event: KeyboardEvent) => {
      const el = event.target as HTMLElement;
      // a list that is open has its own keys: Enter chooses in it, Escape shuts it
      if (el instanceof HTMLOptionElement) return;
      // out of a field that is being typed in as well: what was typed is done with
      if (PAGES[event.key] && store.getState().mode.kind !== "sketch") {
        el.blur();
        return (reachOn(store, PAGES[event.key]!), event.preventDefault());
      }
      if (isTyped(el)) return;
      const state = store.getState();
      const { camera } = state;
      const key = event.key.toLowerCase();
      const done = () => event.preventDefault();
      if ((event.ctrlKey || event.metaKey) && key === "z")
        return (event.shiftKey ? state.redo() : state.undo(), done());
      if ((event.ctrlKey || event.metaKey) && key === "y") return (state.redo(), done());
      if ((event.ctrlKey || event.metaKey) && state.mode.kind === "sketch" && "cxv".includes(key))
        return (key === "v" ? state.paste() : state.copy(key === "x"), done());
      const arrow = el instanceof SVGGElement ? undefined : ARROWS[key];
      if (arrow && event.ctrlKey) return (camera.pan(-arrow[0] * 40, -arrow[1] * 40), done());
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (state.mode.kind !== "sketch" && reachKey(store, event, el)) return done();
      if (state.mode.kind === "step" && cardKey(store, event, el)) return done();
      if (el instanceof HTMLSelectElement) return;
      if (key === "escape") return (state.leave(), done());
      if (key === "delete" || key === "backspace") {
        return (state.mode.kind === "sketch" && removeSelected(store), done());
      }
      if (arrow) {
        const [dx, dy] = arrow;
        const far = event.shiftKey ? 10 : 1;
        if (state.mode.kind === "sketch") state.hand.keyPointer?.nudge(dx * far, -dy * far);
        else if (event.shiftKey) camera.pan(-dx * 40, -dy * 40);
        else camera.orbit(-dx * 32.7, -dy * 32.7);
        return done();
      }
      if (
        key === " " &&
        state.mode.kind === "sketch" &&
        el === document.body &&
        state.hand.keyPointer?.press(event.shiftKey)
      )
        return done();
      if (key === "+" || key === "=") return (camera.zoom(1.25), done());
      if (key === "-") return (camera.zoom(0.8), done());
      if (key === "home") return (state.fit(), done());
      if (key === "enter" && state.mode.kind === "sketch" && !(el instanceof HTMLButtonElement))
        return (state.hand.enter(), done());
      // numbers belong to what is being drawn
      if (state.mode.kind === "sketch" && state.hand.tool?.fields?.length && (/^[0-9.=]$/.test(key) || key === "tab")) {
        const [first] = document.querySelectorAll<HTMLInputElement>("[data-typing] input");
        if (!first) return;
        first.focus();
        first.select();
        return key === "tab" ? done() : undefined;
      }
      // what lies behind what is under the pointer
      if (
        key === "tab" &&
        state.mode.kind !== "sketch" &&
        (el === document.body || el.closest("[aria-label=Model]")) &&
        document.querySelector("[data-hover]")
      )
        return (store.setState({ behind: state.behind + (event.shiftKey ? -1 : 1) }), done());
      if (state.mode.kind === "step" || state.mode.kind === "plane") return;
      const tool = trayRows(state.mode.kind === "sketch")
        .flatMap((r) => r.tools)
        .find((t) => t.key === key);
      if (tool && !event.repeat) {
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

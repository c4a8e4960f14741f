import { useEffect } from "react";
import { VIEWS, type DeskState, type DeskStore } from "./desk-store";

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.closest("input:not([type=range]), textarea, select, [contenteditable]") !== null;

/** The desk from the keyboard. */
export function useDeskKeys(store: DeskStore, help: () => void): void {
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      // a slider that has the keys is moved by its arrows
      if (event.key.startsWith("Arrow") && event.target instanceof HTMLInputElement && event.target.type === "range")
        return;
      const act = actOf(event.key, store.getState(), help);
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", key);
    return () => window.removeEventListener("keydown", key);
  }, [store, help]);
}

function actOf(key: string, state: DeskState, help: () => void): (() => void) | undefined {
  const item = state.items[state.at];
  const view = (by: number) =>
    state.set({ view: VIEWS[(VIEWS.indexOf(state.view) + by + VIEWS.length) % VIEWS.length]! });
  switch (key.length === 1 ? key.toLowerCase() : key) {
    case "ArrowDown":
      return () => state.step(1);
    case "ArrowUp":
      return () => state.step(-1);
    case "ArrowRight":
      return () => view(1);
    case "ArrowLeft":
      return () => view(-1);
    case "?":
      return help;
    case "z":
      return state.held ? () => state.holding.takeBack() : undefined;
    case "/":
      return () => document.querySelector<HTMLInputElement>("nav[aria-label=Submissions] input")?.focus();
    case "Escape":
      return () => state.set({ writing: undefined, isPinning: false, line: undefined, note: undefined });
  }
  return item && ofSubmission(key, state, item);
}

function ofSubmission(key: string, state: DeskState, item: DeskState["items"][string]): (() => void) | undefined {
  const nth = /^[1-9]$/.test(key) ? item.mark.lines[Number(key) - 1] : undefined;
  if (nth) return () => state.set({ line: nth.id, writing: undefined });
  switch (key.length === 1 ? key.toLowerCase() : key) {
    case "Enter":
      return () => {
        if (!item.decided.acceptedAt) state.decide({ do: "accept" });
        state.step(1);
      };
    case "x":
      return item.decided.acceptedAt ? () => state.decide({ do: "reopen" }) : undefined;
    case "r":
      return item.desk.grade ? () => state.giveBack() : undefined;
    case "c":
      return () => state.set({ writing: { kind: "comment", line: state.line } });
    case "p":
      return () => state.set({ isPinning: !state.isPinning });
    case "q":
      return () => state.set({ writing: { kind: item.decided.turn === "instructor" ? "answer" : "ask" } });
  }
  return ofLine(key, state, item);
}

/** What is done to the chosen line. */
function ofLine(key: string, state: DeskState, item: DeskState["items"][string]): (() => void) | undefined {
  const line = item.mark.lines.find((l) => l.id === state.line);
  if (!line) return undefined;
  const now = state.writing?.kind === "overrule" && state.writing.line === line.id ? state.writing.points : line.points;
  const give = (points: number) => () =>
    state.set({ writing: { kind: "overrule", line: line.id, points: Math.min(line.of, Math.max(0, points)) } });
  switch (key.toLowerCase()) {
    case "o":
      return give(now);
    case "+":
    case "=":
      return give(now + 0.5);
    case "-":
      return give(now - 0.5);
    case "f":
      return give(line.of);
    case "n":
      return give(0);
    case "m":
      return line.overruled ? () => state.decide({ do: "withdraw", line: line.id }) : undefined;
  }
  return undefined;
}

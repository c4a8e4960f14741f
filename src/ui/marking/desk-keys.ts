import { useEffect } from "react";
import { VIEWS, type DeskState, type DeskStore } from "./desk-store";

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.closest("input:not([type=range]), textarea, select, [contenteditable]") !== null;

/** The desk from the keyboard. */
export function useDeskKeys(store: DeskStore, help: () => void): void {
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || isTyping(e.target)) return;
      // a slider that has the keys is moved by its arrows
      if (e.key.startsWith("Arrow") && e.target instanceof HTMLInputElement && e.target.type === "range") return;
      const act = actOf(e.key, store.getState(), help);
      if (!act) return;
      e.preventDefault();
      act();
    };
    window.addEventListener("keydown", key);
    return () => window.removeEventListener("keydown", key);
  }, [store, help]);
}

function actOf(key: string, s: DeskState, help: () => void): (() => void) | undefined {
  const item = s.items[s.at];
  const view = (by: number) => s.set({ view: VIEWS[(VIEWS.indexOf(s.view) + by + VIEWS.length) % VIEWS.length]! });
  switch (key.length === 1 ? key.toLowerCase() : key) {
    case "ArrowDown":
      return () => s.step(1);
    case "ArrowUp":
      return () => s.step(-1);
    case "ArrowRight":
      return () => view(1);
    case "ArrowLeft":
      return () => view(-1);
    case "?":
      return help;
    case "z":
      return s.held ? () => s.holding.takeBack() : undefined;
    case "/":
      return () => document.querySelector<HTMLInputElement>("nav[aria-label=Submissions] input")?.focus();
    case "Escape":
      return () => s.set({ writing: undefined, isPinning: false, line: undefined, note: undefined });
  }
  return item && ofSubmission(key, s, item);
}

function ofSubmission(key: string, s: DeskState, item: DeskState["items"][string]): (() => void) | undefined {
  const nth = /^[1-9]$/.test(key) ? item.mark.lines[Number(key) - 1] : undefined;
  if (nth) return () => s.set({ line: nth.id, writing: undefined });
  switch (key.length === 1 ? key.toLowerCase() : key) {
    case "Enter":
      return () => {
        if (!item.decided.acceptedAt) s.decide({ do: "accept" });
        s.step(1);
      };
    case "x":
      return item.decided.acceptedAt ? () => s.decide({ do: "reopen" }) : undefined;
    case "r":
      return item.desk.grade ? () => s.giveBack() : undefined;
    case "c":
      return () => s.set({ writing: { kind: "comment", line: s.line } });
    case "p":
      return () => s.set({ isPinning: !s.isPinning });
    case "q":
      return () => s.set({ writing: { kind: item.decided.turn === "instructor" ? "answer" : "ask" } });
  }
  return ofLine(key, s, item);
}

/** What is done to the chosen line. */
function ofLine(key: string, s: DeskState, item: DeskState["items"][string]): (() => void) | undefined {
  const line = item.mark.lines.find((l) => l.id === s.line);
  if (!line) return undefined;
  const now = s.writing?.kind === "overrule" && s.writing.line === line.id ? s.writing.points : line.points;
  const give = (points: number) => () =>
    s.set({ writing: { kind: "overrule", line: line.id, points: Math.min(line.of, Math.max(0, points)) } });
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
      return line.overruled ? () => s.decide({ do: "withdraw", line: line.id }) : undefined;
  }
  return undefined;
}

import type { Entry } from "@/core/grade/decision";
import type { MarkedLine } from "@/core/grade/mark";
import { LocalTime } from "../parts/local-time";
import type { Item } from "./desk-store";

/** Everything that was done to a submission: who, when, what, why. */
export function History({ item }: { item: Item }) {
  const { desk, mark } = item;
  const checks = desk.checks.map((c, i) => ({
    id: `check ${c.at}`,
    at: c.at,
    by: "the program",
    text:
      i === 0 ? `checked: ${c.points} of ${c.of}` : `checked again: ${c.points} of ${c.of}${c.why ? `. ${c.why}` : ""}`,
  }));
  const said = desk.history.map((e) => ({
    id: e.id,
    at: e.at,
    by: e.by,
    text: `${e.attempt === undefined ? "" : `on try ${e.attempt}, `}${entryText(e, mark.lines)}`,
  }));
  const all = [...checks, ...said].sort((a, b) => a.at.localeCompare(b.at));
  return (
    <details className="border-t border-base-300 px-3.5 py-2.5 text-sm">
      <summary className="quiet cursor-pointer text-xs font-semibold">History ({all.length})</summary>
      <ol>
        {all.map((e) => (
          <li key={e.id} className="mt-1">
            <span className="quiet text-xs">
              <LocalTime iso={e.at} short />, {e.by}
            </span>
            <p className="first-letter:uppercase">{e.text}</p>
          </li>
        ))}
      </ol>
    </details>
  );
}

function entryText({ what }: Entry, lines: readonly MarkedLine[]): string {
  const title = (id: string) => `“${lines.find((l) => l.id === id)?.title ?? "a line that is gone"}”`;
  switch (what.do) {
    case "overrule":
      return `${title(what.line)} gets ${what.points}${what.reason ? `: ${what.reason}` : ""}`;
    case "withdraw":
      return `${title(what.line)} gets what the program gives`;
    case "comment": {
      const place = what.pin ? ` on a place of the ${what.pin.on}` : "";
      return `comment${what.line ? ` on ${title(what.line)}` : ""}${place}: ${what.text}`;
    }
    case "uncomment":
      return "a comment taken back";
    case "ask":
      return `asked: ${what.text}`;
    case "answer":
      return `answered: ${what.text}`;
    case "say":
      return `wrote: ${what.text}`;
    case "settle":
      return "nothing more to say";
    case "accept":
      return "looked at";
    case "reopen":
      return "opened again";
    case "return":
      return "returned";
  }
}

"use client";

import { useState } from "react";
import type { Roster, RosterPreview } from "@/core/roster/roster";
import type { Answer } from "../parts/zod-form";

const EXAMPLE = "Name,Email,Group\nAda Quill,ada.quill@college.example,1b";

/** A roster pasted or read from a file: looked at first, then taken in. */
export function RosterForm({
  preview,
  take,
}: {
  preview: (text: string) => Promise<RosterPreview>;
  take: (text: string) => Promise<Answer>;
}) {
  const [text, setText] = useState("");
  const [seen, setSeen] = useState<RosterPreview>();
  const [said, setSaid] = useState<Answer>({});
  const [busy, setBusy] = useState(false);
  const during = async (work: () => Promise<void>) => {
    setBusy(true);
    try {
      await work();
    } catch {
      setSaid({ sentence: "The server did not answer. Try again; the list is still here." });
    }
    setBusy(false);
  };
  const edit = (next: string) => {
    setText(next);
    setSeen(undefined);
    setSaid({});
  };
  const look = () =>
    during(async () => {
      setSaid({});
      setSeen(await preview(text));
    });
  const takeIn = () =>
    during(async () => {
      const answer = await take(text);
      setSaid(answer);
      if (!answer.done) return;
      setText("");
      setSeen(undefined);
    });
  return (
    <div className="mt-1">
      <p className="quiet text-sm">
        Paste rows from a table, or choose a CSV file. The first row names the columns: name (or first name and last
        name), email; role and group if you like.
      </p>
      <textarea
        aria-label="Roster"
        className="textarea figures mt-2 h-28 w-full text-xs"
        placeholder={EXAMPLE}
        value={text}
        onChange={(e) => edit(e.target.value)}
      />
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <input
          type="file"
          aria-label="CSV file"
          accept=".csv,.txt,text/csv"
          className="file-input file-input-sm"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) void file.text().then(edit);
          }}
        />
        <button className="btn btn-sm" disabled={busy || !text.trim()} onClick={() => void look()}>
          Look at it
        </button>
        {seen?.roster && seen.roster.lines.length > 0 && (
          <button className="btn btn-primary btn-sm" disabled={busy} onClick={() => void takeIn()}>
            Take {seen.roster.lines.length} in
          </button>
        )}
      </div>
      {(said.sentence ?? seen?.sentence) && (
        <p role="alert" className="mt-2 text-sm text-error">
          {said.sentence ?? seen?.sentence}
        </p>
      )}
      {said.done && (
        <p role="status" className="mt-2 text-sm text-success">
          {said.done}
        </p>
      )}
      {seen?.roster && <Seen {...seen} roster={seen.roster} />}
    </div>
  );
}

/** What taking it in would do, row by row. */
function Seen({ roster, known = [] }: RosterPreview & { roster: Roster }) {
  const by = new Map(known.map((k) => [k.email, k]));
  const what = (email: string): string => {
    const there = by.get(email);
    if (!there) return "new here; gets a letter with a way in";
    return there.in_course ? "in the course already" : `is here as ${there.name}; comes into the course`;
  };
  return (
    <div className="mt-3 max-h-80 overflow-y-auto">
      {roster.faults.length > 0 && (
        <ul className="mb-2 list-inside list-disc text-sm text-error" aria-label="Rows that cannot be taken">
          {roster.faults.map((f) => (
            <li key={`${f.row} ${f.sentence}`}>
              Row {f.row}: {f.sentence}
            </li>
          ))}
        </ul>
      )}
      <table className="table table-xs" aria-label="Rows to be taken in">
        <tbody>
          {roster.lines.map((line) => (
            <tr key={line.email}>
              <td>{line.name}</td>
              <td>{line.email}</td>
              <td>{line.role}</td>
              <td>{line.group}</td>
              <td className="quiet">{what(line.email)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

"use client";

import { useState } from "react";
import type { RubricLine } from "@/core/check/exercise/rubric";

export interface RubricTemplate {
  readonly id: string;
  readonly name: string;
  readonly rubric: readonly RubricLine[];
}

/** Rubrics of the course to start from, and this one kept among them. */
export function Templates({
  templates,
  keep,
  lines,
  take,
}: {
  templates: readonly RubricTemplate[];
  keep: (name: string, rubric: readonly RubricLine[]) => Promise<string>;
  lines: readonly RubricLine[];
  take: (t: RubricTemplate) => void;
}) {
  const [name, setName] = useState("");
  const [said, setSaid] = useState("");
  return (
    <div className="flex flex-wrap items-center gap-2">
      {templates.length > 0 && (
        <select
          className="select select-sm w-52"
          aria-label="Take a rubric of the course"
          value=""
          onChange={(e) => {
            const found = templates.find((t) => t.id === e.target.value);
            if (found) take(found);
          }}
        >
          <option value="">Take a rubric of the course …</option>
          {templates.map((t) => (
            <option key={t.id} value={t.id}>
              {t.name}
            </option>
          ))}
        </select>
      )}
      <span className="quiet text-xs">Keep it as</span>
      <input
        className="input input-sm w-36"
        aria-label="Name to keep this rubric under"
        maxLength={60}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <button
        type="button"
        className="btn btn-sm"
        disabled={!name.trim()}
        onClick={() => void keep(name, lines).then(setSaid)}
      >
        Keep for the course
      </button>
      {said && (
        <span role="status" className="quiet text-xs">
          {said}
        </span>
      )}
    </div>
  );
}

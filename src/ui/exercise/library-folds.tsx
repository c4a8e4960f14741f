import { useState } from "react";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { ExerciseChange } from "@/core/exercise/change";
import { partOfFile } from "@/core/exercise/change";
import { done, type Outcome } from "@/core/units/refusal";
import { Amount, Choice, Fold, TextBox } from "./fields";
import { LEVELS } from "./library";

type Say = (to: Extract<ExerciseChange, { do: "say" }>["to"]) => Outcome<void>;
type About = NonNullable<Exercise["about"]>;

/** What a library finds an exercise by, its place in a series, and what students start from. */
export function LibraryFolds({ exercise: e, say }: { exercise: Exercise; say: Say }) {
  const about: About = e.about ?? { tags: [] };
  const tell = (to: Partial<Record<keyof About, unknown>>) => {
    const { tags, level, minutes } = { ...about, ...to } as About;
    const isSaid = tags.length > 0 || level !== undefined || minutes !== undefined;
    return say({ about: isSaid ? { tags, ...(level && { level }), ...(minutes && { minutes }) } : undefined });
  };
  const held = [
    about.tags.join(", "),
    about.level ? (LEVELS[about.level] ?? "") : "",
    about.minutes ? `${about.minutes} min` : "",
  ];
  return (
    <>
      <Fold title="In the library" holds={held.filter(Boolean).join(" · ") || "none"}>
        <div className="grid grid-cols-[1fr_10rem_8rem] gap-3">
          <TextBox
            label="Tags, with commas between"
            value={about.tags.join(", ")}
            most={400}
            take={(text) => tell({ tags: [...new Set(text.split(",").flatMap((t) => t.trim() || []))] })}
          />
          <Choice
            label="Level"
            value={String(about.level ?? "")}
            options={[["", "not said"], ...LEVELS.slice(1).map((l, i) => [String(i + 1), l] as const)]}
            take={(level) => tell({ level: level ? Number(level) : undefined })}
          />
          <Amount
            label="Minutes needed"
            value={about.minutes}
            unit="min"
            optional
            take={(minutes) => tell({ minutes: minutes && Math.round(minutes) })}
          />
        </div>
      </Fold>
      <Fold title="Series" holds={e.series ? `${e.series.name}, ${e.series.place}` : "none"}>
        <div className="grid grid-cols-[1fr_8rem] gap-3">
          <TextBox
            label="Series, if it belongs to one"
            value={e.series?.name ?? ""}
            most={60}
            take={(text) => {
              const name = text.trim();
              return say({ series: name ? { name, place: e.series?.place ?? 1 } : undefined });
            }}
          />
          {e.series && (
            <Amount
              label="Its place there"
              value={e.series.place}
              unit=""
              take={(place) => say({ series: { ...e.series!, place: Math.round(place!) } })}
            />
          )}
        </div>
      </Fold>
      <StartFold start={e.start} say={say} />
    </>
  );
}

function StartFold({ start, say }: { start: Exercise["start"]; say: Say }) {
  const [from, setFrom] = useState<string>(start?.from ?? "nothing");
  const [trouble, setTrouble] = useState<string>();
  const holds = { own: `own part of ${start?.from === "own" ? start.number : ""}`, starter: "a part for all" };
  const bring = async (file: File | undefined) => {
    if (!file) return;
    const part = partOfFile(file.name, await file.text());
    const r = part.ok ? say({ start: { from: "starter", part: part.value } }) : part;
    setTrouble(r.ok ? undefined : r.refusal.sentence);
  };
  return (
    <Fold title="What students start from" holds={start ? holds[start.from] : "none"}>
      <div className="grid grid-cols-2 gap-3">
        <Choice
          label="Students start from"
          value={from}
          options={[
            ["nothing", "nothing"],
            ["own", "their own part of an earlier exercise"],
            ["starter", "a part that all are given"],
          ]}
          take={(chosen) => {
            setFrom(chosen);
            if (chosen === "nothing") say({ start: undefined });
          }}
        />
        {from === "own" && (
          <TextBox
            label="Number of that exercise"
            value={start?.from === "own" ? start.number : ""}
            most={20}
            take={(number) =>
              number.trim() ? say({ start: { from: "own", number: number.trim() } }) : done(undefined)
            }
          />
        )}
        {from === "starter" && (
          <label className="block">
            <span className="quiet block text-xs">
              {start?.from === "starter" ? "Another starter part (document)" : "Starter part (document)"}
            </span>
            <input
              type="file"
              accept="application/json,.json"
              className="file-input file-input-sm w-full"
              onChange={(e) => void bring(e.target.files?.[0])}
            />
          </label>
        )}
      </div>
      {trouble && (
        <p role="alert" className="mt-1 text-sm text-error">
          {trouble}
        </p>
      )}
    </Fold>
  );
}

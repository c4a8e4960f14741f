"use client";

import { useState } from "react";
import type { AFTER_DUE } from "@/core/grade/late";
import { Field } from "./field";

/** When a handout opens, is due and closes, as the clock of its course shows it ("2026-12-01T18:00"). */
export interface TimesShown {
  readonly opens: string;
  readonly due: string;
  readonly closes: string;
  readonly grace: number;
  readonly after: (typeof AFTER_DUE)[number];
  readonly pointsADay: number;
  /** Groups and students it is for; none: everybody. */
  readonly audience: { readonly groups: readonly string[]; readonly people: readonly string[] } | undefined;
}
/** Whom a handout can be given to. */
export interface Choices {
  readonly groups: readonly { readonly id: string; readonly name: string }[];
  readonly students: readonly { readonly id: string; readonly name: string }[];
}

const START: TimesShown = {
  opens: "",
  due: "",
  closes: "",
  grace: 10,
  after: "late",
  pointsADay: 1,
  audience: undefined,
};

/** When a handout is given, and to whom. */
export function TimesFields({
  start = START,
  timeZone,
  choices,
}: {
  start?: TimesShown;
  timeZone: string;
  choices: Choices;
}) {
  const [after, setAfter] = useState<string>(start.after);
  return (
    <>
      <Field label={`Due, by the clock of ${timeZone.replaceAll("_", " ")}`}>
        <input type="datetime-local" name="due" className="input" defaultValue={start.due} required />
      </Field>
      <Field label="Opens, empty: at once">
        <input type="datetime-local" name="opens" className="input" defaultValue={start.opens} />
      </Field>
      <Field label="Closes, empty: stays open">
        <input type="datetime-local" name="closes" className="input" defaultValue={start.closes} />
      </Field>
      <Field label="Grace, minutes">
        <input
          type="number"
          name="grace"
          className="input w-24"
          min={0}
          max={10080}
          step={1}
          defaultValue={start.grace}
          required
        />
      </Field>
      <Field label="Afterwards">
        <select name="after" className="select w-52" value={after} onChange={(ev) => setAfter(ev.target.value)}>
          <option value="late">taken, and marked late</option>
          <option value="points">points off each day</option>
          <option value="refuse">not accepted</option>
        </select>
      </Field>
      {after === "points" ? (
        <Field label="Points a day">
          <input
            type="number"
            name="points-a-day"
            className="input w-24"
            min={0}
            max={1000}
            step={0.5}
            defaultValue={start.pointsADay || 1}
          />
        </Field>
      ) : (
        <input type="hidden" name="points-a-day" value="0" />
      )}
      <AudienceFields start={start.audience} choices={choices} />
    </>
  );
}

/** For everybody, or for some groups and students only. */
function AudienceFields({ start, choices }: { start: TimesShown["audience"]; choices: Choices }) {
  const [isForAll, setForAll] = useState(start === undefined);
  const list = (name: string, all: Choices["groups"], chosen: readonly string[] = []) =>
    all.map((x) => (
      <label key={x.id} className="flex items-center gap-2">
        <input
          type="checkbox"
          name={name}
          value={x.id}
          className="checkbox checkbox-sm"
          defaultChecked={chosen.includes(x.id)}
        />
        {x.name}
      </label>
    ));
  return (
    <>
      <Field label="For">
        <select
          name="for"
          className="select w-52"
          value={isForAll ? "all" : "some"}
          onChange={(e) => setForAll(e.target.value === "all")}
        >
          <option value="all">everybody in the course</option>
          <option value="some">some groups or students</option>
        </select>
      </Field>
      {!isForAll && (
        <fieldset className="w-full text-sm" aria-label="Groups and students it is for">
          {choices.groups.length > 0 && (
            <div className="flex flex-wrap gap-x-4 gap-y-1 border-b border-base-300 pb-2">
              {list("group", choices.groups, start?.groups)}
            </div>
          )}
          <div className="mt-2 grid max-h-44 grid-cols-3 gap-x-4 gap-y-1 overflow-y-auto">
            {list("student", choices.students, start?.people)}
          </div>
        </fieldset>
      )}
    </>
  );
}

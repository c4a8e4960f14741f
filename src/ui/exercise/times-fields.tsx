"use client";

import { useState, type ReactNode } from "react";
import { Field } from "./field";

/** When a handout opens, is due and closes, as the clock of its course shows it ("2026-12-01T18:00"). */
export interface TimesShown {
  readonly opens: string;
  readonly due: string;
  readonly closes: string;
  /** Groups and students it is for; none: everybody. */
  readonly audience: { readonly groups: readonly string[]; readonly people: readonly string[] } | undefined;
}
/** Whom a handout can be given to. */
export interface Choices {
  readonly groups: readonly { readonly id: string; readonly name: string }[];
  readonly students: readonly { readonly id: string; readonly name: string }[];
}

/** What stands in the fields of a form: kept where the form goes and comes back. */
export function timesIn(form: FormData): TimesShown {
  const text = (name: string) => String(form.get(name) ?? "");
  const ids = (name: string) => form.getAll(name).map(String);
  const isForSome = form.get("for") === "some";
  return {
    opens: text("opens"),
    due: text("due"),
    closes: text("closes"),
    audience: isForSome ? { groups: ids("group"), people: ids("student") } : undefined,
  };
}

/** When a handout is given, and to whom. */
export function TimesFields({
  start,
  timeZone,
  choices,
  children,
}: {
  start: TimesShown;
  timeZone: string;
  choices: Choices;
  /** What belongs between the times and whom it is for. */
  children: ReactNode;
}) {
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
      {children}
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

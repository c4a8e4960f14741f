import type { Exercise } from "@/core/check/exercise/exercise";
import type { Targets } from "@/core/check/exercise/prepare";
import { begun } from "@/core/naming/words";
import { isSolidStep, titleOf } from "@/core/part/steps/kinds";
import { leftOf, type Left } from "@/core/sizes/free";
import { Measure } from "./measure";
import type { ExerciseStore } from "./store";

type Things = Targets["things"];

/** A step or a thing that is left to the student: up to so many mm off, or whatever it is. */
interface LeftThing {
  readonly kind: "step" | "thing";
  /** The step's id, or the names of the thing's faces. */
  readonly of: readonly string[];
  readonly within: number | undefined;
}

const keyOf = ({ kind, of }: Pick<LeftThing, "kind" | "of">): string => `${kind} ${of.join()}`;

/** What is left free; a face that belongs to no thing stands by itself. */
function leftIn(free: Exercise["free"], things: Things): LeftThing[] {
  const within = (l: Left) => (typeof l === "string" ? undefined : l.within);
  const faces = new Map((free?.faces ?? []).map((l) => [leftOf(l), l]));
  const known = things.flatMap((t): LeftThing[] => {
    const [first] = t.faces.flatMap((f) => faces.get(f) ?? []);
    return first === undefined ? [] : [{ kind: "thing", of: t.faces, within: within(first) }];
  });
  const named = new Set(known.flatMap((l) => l.of));
  const others = [...faces].flatMap(([name, l]): LeftThing[] =>
    named.has(name) ? [] : [{ kind: "thing", of: [name], within: within(l) }],
  );
  const steps = (free?.steps ?? []).map((l): LeftThing => ({ kind: "step", of: [leftOf(l)], within: within(l) }));
  return [...steps, ...known, ...others];
}

function freeOf(list: readonly LeftThing[]): Exercise["free"] {
  const left = ({ of, within }: LeftThing): Left[] =>
    of.map((name) => (within === undefined ? name : { of: name, within }));
  return {
    steps: list.filter((l) => l.kind === "step").flatMap(left),
    faces: list.filter((l) => l.kind === "thing").flatMap(left),
  };
}

/** What can be left free, with what it is called. */
function choicesOf({ reference }: Exercise, things: Things) {
  const steps = reference.steps.flatMap((s, i) =>
    !isSolidStep(s) || s.kind === "imported"
      ? []
      : [{ kind: "step" as const, of: [s.id], name: `Step ${i + 1}: ${titleOf(s)}` }],
  );
  return [...steps, ...things.map((t) => ({ kind: "thing" as const, of: [...t.faces], name: begun(t.name) }))];
}

/** What is left free, in a few words. */
export function freeText(exercise: Exercise, things: Things): string {
  const list = leftIn(exercise.free, things);
  const [first] = list;
  if (!first) return "none";
  const name = choicesOf(exercise, things).find((c) => keyOf(c) === keyOf(first))?.name ?? "one that is gone";
  return list.length > 1 ? `${name} and ${list.length - 1} more` : name;
}

/** Steps and things of the reference that are left to the student's judgement, within a band or altogether. */
export function FreeEditor({ store, things }: { store: ExerciseStore; things: Things }) {
  const e = store((s) => s.exercise);
  const put = (list: readonly LeftThing[]) => store.getState().apply({ do: "free", to: freeOf(list) }).ok;
  const list = leftIn(e.free, things),
    choices = choicesOf(e, things);
  const names = new Map(choices.map((c) => [keyOf(c), c.name]));
  const rest = choices.filter((c) => !list.some((l) => keyOf(l) === keyOf(c)));
  return (
    <fieldset aria-label="Left to the student">
      <p className="quiet text-sm">
        Steps and things that everybody makes to their own judgement: no check asks for them, and the Sheet prints their
        sizes as free. With a distance they must be there and may be off by no more.
      </p>
      <ul className="mt-2 space-y-2">
        {list.map((l) => {
          const name = names.get(keyOf(l)) ?? "Something that is not there any more";
          return (
            <li key={keyOf(l)} className="flex flex-wrap items-center gap-3">
              <span className="min-w-0 flex-1 py-1 text-sm">{name}</span>
              <span className="quiet text-sm">off by at most</span>
              <Measure
                ariaLabel={`How far off: ${name}`}
                value={l.within}
                quantity="length"
                units={e.units}
                optional
                width="row"
                placeholder="any"
                take={(within) =>
                  (within === undefined || within > 0) && put(list.map((o) => (o === l ? { ...l, within } : o)))
                }
              />
              <button type="button" className="btn btn-ghost btn-sm" onClick={() => put(list.filter((o) => o !== l))}>
                As drawn
              </button>
            </li>
          );
        })}
      </ul>
      <select
        className="select select-sm mt-2 w-96 max-w-full"
        aria-label="Leave something to the student"
        value=""
        disabled={!rest.length}
        onChange={(ev) => {
          const chosen = rest.find((c) => keyOf(c) === ev.target.value);
          if (chosen) put([...list, { kind: chosen.kind, of: chosen.of, within: undefined }]);
        }}
      >
        <option value="">Leave something to the student …</option>
        {rest.map((c) => (
          <option key={keyOf(c)} value={keyOf(c)}>
            {c.name}
          </option>
        ))}
      </select>
    </fieldset>
  );
}

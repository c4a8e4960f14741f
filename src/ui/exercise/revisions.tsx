import Link from "next/link";
import { LocalTime } from "../parts/local-time";
import { PartPicture } from "../parts/part-picture";
import { PageFrame } from "../parts/page-frame";

interface Shown {
  readonly version: number;
  readonly by: string | null;
  readonly at: string;
  /** Handouts that were issued of it. */
  readonly issued: number;
  /** What changed since the one before, in sentences. */
  readonly changes: readonly string[];
  readonly isFirst: boolean;
  readonly picture: string | null;
}

/** The revisions of an exercise, with what changed in each. */
export function RevisionsPage({
  person,
  exercise,
  revisions,
  bringBack,
}: {
  person: { name: string };
  exercise: { id: string; number: string; title: string };
  revisions: readonly Shown[];
  bringBack: (form: FormData) => Promise<void>;
}) {
  return (
    <PageFrame person={person}>
      <h1 className="text-xl font-semibold">
        {exercise.number} {exercise.title}: revisions
      </h1>
      <p className="quiet mt-1">
        What stood when work on it paused, and whatever was given out.{" "}
        <Link className="text-accent underline" href={`/exercises/${exercise.id}`}>
          Back to the exercise
        </Link>
      </p>
      <ol className="mt-4 divide-y divide-base-300 border-y border-base-300">
        {revisions.map((shown, i) => (
          <li key={shown.version} className="flex items-start gap-6 py-3">
            <PartPicture hash={shown.picture} alt={`The part of revision ${shown.version}`} />
            <div className="w-56 shrink-0">
              <b>Revision {shown.version}</b>
              {i === 0 && <span className="quiet"> stands now</span>}
              <p className="quiet text-sm">
                <LocalTime iso={shown.at} />
                {shown.by && `, ${shown.by}`}
              </p>
              {shown.issued > 0 && (
                <p className="text-sm">
                  {shown.issued} {shown.issued === 1 ? "handout" : "handouts"}
                </p>
              )}
            </div>
            <ul className="min-w-0 flex-1 text-sm">
              {shown.changes.map((c) => (
                <li key={c}>{c}</li>
              ))}
              {!shown.changes.length && (
                <li className="quiet">
                  {shown.isFirst ? "The first that is kept." : "Nothing but titles of its parts."}
                </li>
              )}
            </ul>
            {i > 0 && (
              <form action={bringBack}>
                <input type="hidden" name="id" value={exercise.id} />
                <input type="hidden" name="version" value={shown.version} />
                <button className="btn btn-sm">Bring it back</button>
              </form>
            )}
          </li>
        ))}
      </ol>
    </PageFrame>
  );
}

import Link from "next/link";
import { areTriesUsed, triesLeftText } from "@/core/grade/late";
import { CardWall, LookChoice, useLook } from "../parts/card-wall";
import { LocalTime } from "../parts/local-time";
import { PartPicture } from "../parts/part-picture";
import type { Course, Handout } from "./course";
import { WarmKernel } from "./warm-kernel";

/** A course as its students see it: what is due, and their own parts. */
export function Learning({ course, me }: { course: Course; me: string }) {
  const [look, choose] = useLook();
  if (!course.handouts.length)
    return <p className="quiet mt-2">No handouts yet. They appear here when your instructor issues them.</p>;
  return (
    <>
      <WarmKernel me={me} next={lastWorkedAt(course).join()} />
      <p className="text-right">
        <LookChoice look={look} choose={choose} />
      </p>
      {look === "cards" && (
        <CardWall
          label="Your parts"
          cards={course.handouts.map((h) => ({
            id: h.id,
            href: `/bench/${h.id}`,
            title: `${h.number} ${h.title}`,
            picture: h.my_picture ?? h.pictured,
            alt: h.my_picture ? "Your own part" : "",
            children: (
              <>
                <LocalTime iso={h.due_at} zone={h.time_zone} />
                <span className="block">{h.my_submission ? resultText(h) : "not handed in"}</span>
              </>
            ),
          }))}
        />
      )}
      <table className={`table ${look === "cards" ? "hidden" : ""}`}>
        <thead>
          <tr>
            <th className="w-20">
              <span className="sr-only">Part</span>
            </th>
            <th>Number</th>
            <th>Title</th>
            <th>Due</th>
            <th className="text-right">Result</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {course.handouts.map((h) => (
            <tr key={h.id} className="hover:bg-base-200">
              <td className="py-1">
                <PartPicture hash={h.my_picture ?? h.pictured} alt={h.my_picture ? "Your own part" : ""} />
              </td>
              <td className="figures">{h.number}</td>
              <td>
                <Link className="font-medium hover:underline" href={`/bench/${h.id}`}>
                  {h.title}
                </Link>
              </td>
              <td>
                <LocalTime iso={h.due_at} zone={h.time_zone} />
              </td>
              <td className="figures text-right">
                {h.my_submission ? (
                  <Link className="hover:underline" href={`/submissions/${h.my_submission}`}>
                    {h.my_late && <span className="text-accent">late · </span>}
                    {h.my_turn === "student" && <span className="text-accent">a question for you · </span>}
                    {resultText(h)}
                  </Link>
                ) : (
                  <span className="quiet">{h.worked_at ? "begun" : "not opened"}</span>
                )}
              </td>
              <td className="text-right">
                <Way handout={h} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** The parts that were changed last are those most go on with, the last first. */
function lastWorkedAt({ handouts }: Course): readonly string[] {
  const begun = handouts.filter((h) => h.worked_at).sort((a, b) => b.worked_at!.localeCompare(a.worked_at!));
  return begun.slice(0, AHEAD).map((h) => h.id);
}
/** So many are built before they are opened. */
const AHEAD = 3;

/** The way to a student's part: on with it, or only to look where every try is used. */
function Way({ handout: h }: { handout: Handout }) {
  const tries = { used: h.my_tries, most: h.attempts_most };
  const isOver = areTriesUsed(tries);
  const text = h.worked_at ? "Go on" : "Begin";
  return (
    <Link
      className={`btn btn-sm ${h.my_submission ? "" : "btn-primary"}`}
      href={`/bench/${h.id}`}
      title={isOver ? triesLeftText(tries) : undefined}
    >
      {isOver ? "Your part" : text}
    </Link>
  );
}

/** What a student sees of their newest try, in a word. */
function resultText(h: Handout): string {
  if (h.my_points !== null) return `${h.my_points} / ${h.of}`;
  if (h.mine === "failed") return "not checked";
  return h.mine === "checked" ? "handed in" : "being checked";
}

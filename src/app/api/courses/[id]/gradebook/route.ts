import { courseAbout } from "@/server/courses/courses";
import { gradebookOf } from "@/server/marking/gradebook";
import { gradebookCsv, gradebookJson } from "@/server/marking/gradebook-files";
import { classPdf, studentPdf } from "@/server/marking/results-file";
import { endpoint, fileOf, Refused } from "../../../endpoint";

const TYPES = { csv: "text/csv; charset=utf-8", json: "application/json", pdf: "application/pdf" } as const;

/** The gradebook of a course as a file; with `student` the results of one, as PDF. */
export const GET = endpoint<{ id: string }>("course.mark", "id", async (_, { id }, request) => {
  const as = fileOf(request, ["csv", "json", "pdf"]);
  const [{ title, term }, book] = await Promise.all([courseAbout(id), gradebookOf(id)]);
  const course = [title, term].filter(Boolean).join(", ");
  const wanted = new URL(request.url).searchParams.get("student");
  const student = wanted === null ? undefined : book.students.find((s) => s.id === wanted);
  if (wanted !== null && !student) throw new Refused(404, "There is no such student in this course.");
  const name = `${student ? student.name : title} results`.replace(/[^\w.-]+/g, "-");
  const data = async () => {
    if (as === "csv") return gradebookCsv(book);
    if (as === "json") return JSON.stringify(gradebookJson(course, book), null, 2);
    return new Uint8Array(await (student ? studentPdf(course, student, book) : classPdf(course, book)));
  };
  return new Response(await data(), {
    headers: {
      "content-type": TYPES[as],
      "content-disposition": `attachment; filename="${name}.${as}"`,
      "cache-control": "no-store",
    },
  });
});

import { MOST_PACKAGE, packageOfCourse, takePackage } from "@/server/exercises/exercise-package";
import { endpoint, must, Refused, zipFile } from "../../../endpoint";

/** All exercises of a course with their references and Sheets. */
export const GET = endpoint<{ id: string }>("course.teach", "id", async (_, { id }) =>
  zipFile(await packageOfCourse(id), "exercises.zip"),
);

/** Takes the exercises of a package, or one exercise document, into a course. */
export const POST = endpoint<{ id: string }>("course.teach", "id", async (_, { id }, request) => {
  const told = Number(request.headers.get("content-length") ?? Number.NaN);
  // the server takes no more than was told
  if (!(told <= MOST_PACKAGE)) throw new Refused(413, "This package is larger than 20 MB.");
  const made = must(await takePackage(id, new Uint8Array(await request.arrayBuffer())));
  return { exercises: made };
});

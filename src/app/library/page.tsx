import { libraryOf, MOST_LISTED, tagsOf, taughtBy } from "@/server/library/library";
import { LibraryPage } from "@/ui/exercise/library";
import { duplicateExercise } from "../library-actions";
import { askedText, signedIn } from "../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const person = await signedIn();
  const asked = await searchParams;
  const level = Number(askedText(asked["level"]));
  const wanted = {
    text: askedText(asked["q"]),
    tag: askedText(asked["tag"]),
    level: level >= 1 && level <= 3 ? level : undefined,
  };
  const [exercises, tags, courses] = await Promise.all([libraryOf(person, wanted), tagsOf(person), taughtBy(person)]);
  return (
    <LibraryPage
      person={person}
      wanted={wanted}
      exercises={exercises.map(({ changed_at, ...x }) => ({ ...x, changedAt: changed_at.toISOString() }))}
      isCut={exercises.length >= MOST_LISTED}
      tags={tags}
      courses={courses}
      duplicate={duplicateExercise}
      into={courses.find((c) => c.id === askedText(asked["into"]))?.id}
    />
  );
}

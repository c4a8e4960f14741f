import { compareExercises } from "@/core/check/exercise/compare";
import { exercise } from "@/server/exercises/exercises";
import { revisionsOfExercise } from "@/server/library/library";
import { RevisionsPage } from "@/ui/exercise/revisions";
import { bringRevisionBack } from "../../../library-actions";
import { allowed } from "../../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { person } = await allowed("exercise.edit", id);
  const { document } = await exercise(id);
  const list = await revisionsOfExercise(id);
  return (
    <RevisionsPage
      person={person}
      exercise={{ id, number: document.number, title: document.title }}
      revisions={list.map((revision, i) => {
        const before = list[i + 1];
        return {
          version: revision.version,
          by: revision.by_name,
          at: revision.made_at.toISOString(),
          issued: revision.issued,
          changes: before ? compareExercises(before.document, revision.document) : [],
          isFirst: !before,
          picture: revision.pictured,
        };
      })}
      bringBack={bringRevisionBack}
    />
  );
}

import { exercise } from "@/server/exercises/exercises";
import { Board } from "@/ui/board/board";
import { allowed } from "../../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { person } = await allowed("exercise.edit", id);
  const { document, version, prepared } = await exercise(id);
  const sizes = prepared && "sizes" in prepared ? (prepared.sizes ?? []) : [];
  if (!document.reference.steps.length || (!document.sizes && !sizes.length))
    return (
      <main className="mx-auto max-w-xl p-8">
        <h1 className="font-semibold">
          {document.number} {document.title}
        </h1>
        <p className="mt-3">
          There is no Sheet to arrange yet. It is drawn as soon as the reference part has a solid and has been measured.
        </p>
        <p className="mt-3">
          <a className="text-accent hover:underline" href={`/exercises/${id}`}>
            Back to the exercise
          </a>
        </p>
      </main>
    );
  return (
    <Board
      id={id}
      exercise={document}
      sizes={sizes}
      version={version}
      owner={person.id}
      heading={`${document.number} ${document.title}`}
      leaveTo={`/exercises/${id}`}
    />
  );
}

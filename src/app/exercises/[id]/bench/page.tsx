import { isSolidStep } from "@/core/part/steps/kinds";
import { exercise } from "@/server/exercises/exercises";
import { Bench } from "@/ui/bench/bench";
import { allowed } from "../../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { person } = await allowed("exercise.edit", id);
  const { document, version, prepared } = await exercise(id);
  // a part that is no solid yet is no trouble
  const isBegun = document.reference.steps.some(isSolidStep);
  const sheet = prepared && "sheet" in prepared ? prepared.sheet : null;
  return (
    <Bench
      document={document.reference}
      version={version}
      saveTo={`/api/exercises/${id}/reference`}
      heading={`${document.number} ${document.title}`}
      detail="Reference part"
      sheet={sheet}
      massUnit={document.massUnit}
      sheetTrouble={isBegun && prepared && "trouble" in prepared ? prepared.trouble : null}
      watch={`exercise:${id}`}
      owner={person.id}
      leaveTo={`/exercises/${id}`}
    />
  );
}

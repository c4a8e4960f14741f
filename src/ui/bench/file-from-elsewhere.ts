import { MAX_MESH, type Accepted, type PartFile } from "@/core/check/given/part-file";
import { MAX_DOCUMENT } from "@/core/part/document";
import type { LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";

const ENDINGS: Partial<Record<Accepted, string>> = { step: ".step,.stp", mesh: ".stl,.3mf" };
/** Endings of the files that are taken, as a file field wants them. */
export const endingsOf = (accepts: readonly Accepted[]): string => accepts.map((a) => ENDINGS[a] ?? "").join(",");

/** What a file gets, in a sentence. */
export function fileOffer(accepts: readonly Accepted[]): string {
  const step = "a STEP file: all but the sketches is checked",
    mesh = "a mesh (STL, 3MF): shape, volume and mass are checked, as finely as its facets";
  const list = [...(accepts.includes("step") ? [step] : []), ...(accepts.includes("mesh") ? [mesh] : [])];
  return `${accepts.includes("part") ? "Or hand in" : "Hand in"} ${list.join("; or ")}.`;
}

/**
 * Reads a file that was chosen, as it is handed in. What is too large is said here, before it is sent all the way to be
 * refused. @param unit what the numbers of an STL file are meant in
 */
export async function partFileOf(file: File, unit: LengthUnit): Promise<Outcome<PartFile>> {
  const head = { format: "caliper-file", version: 1, name: file.name } as const;
  const kind = /\.(stl|3mf)$/i.exec(file.name)?.[1]?.toLowerCase();
  const most = kind ? MAX_MESH : MAX_DOCUMENT;
  if (file.size > most)
    return refuse("too-large", `This file is larger than ${most / 1_000_000} MB. Hand in the part alone, or coarser.`);
  if (!file.size) return refuse("empty", "This file is empty.");
  if (!kind) return done({ ...head, kind: "step", text: await file.text() });
  const data = await base64Of(file);
  return done(kind === "stl" ? { ...head, kind: "stl", unit, data } : { ...head, kind: "3mf", data });
}

/** The browser's own way to base64 that takes large files. */
function base64Of(file: File): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).replace(/^[^,]*,/, ""));
    reader.onerror = () => reject(reader.error ?? new Error("the file cannot be read"));
    reader.readAsDataURL(file);
  });
}

import type { ReportPicture } from "@/core/check/check";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { DueRules } from "@/core/grade/late";
import type { Sheet } from "@/core/sheet/sheet";
import type { DeskSubmission } from "@/server/marking/desk";
import type { QueueRow } from "@/server/marking/desk-queue";
import { unpackMesh } from "../parts/packed-mesh";

/** What the desk knows of the handout; the same for all its submissions. */
export interface DeskHandout {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly course: string;
  readonly exercise: Exercise;
  readonly sheet: Sheet | null;
  readonly rules: Omit<DueRules, "due_at"> & { readonly dueAt: string };
}

/** A failed fetch with a sentence for people. */
export class Trouble extends Error {}

async function fetched<T>(url: string): Promise<T> {
  let r: Response;
  try {
    r = await fetch(url, { cache: "no-store", signal: AbortSignal.timeout(20_000) });
  } catch {
    throw new Trouble("There is no connection to the server. It is tried again when you come back to this one.");
  }
  const data = (await r.json().catch(() => ({}))) as T & { sentence?: string };
  if (!r.ok) throw new Trouble(data.sentence ?? "The server does not answer as it should.");
  return data;
}

export const fetchSubmission = (id: string) => fetched<DeskSubmission>(`/api/submissions/${id}/desk`);

/** The class as it stands now. */
export const fetchQueue = async (handout: string): Promise<readonly QueueRow[]> =>
  (await fetched<{ queue: readonly QueueRow[] }>(`/api/handouts/${handout}/queue`)).queue;

type Packed = Record<string, Parameters<typeof unpackMesh>[0]>;
const unpacked = (data: Packed) =>
  Object.fromEntries(Object.entries(data).map(([k, m]) => [k, unpackMesh(m)])) as unknown as ReportPicture;

/** So many pictures are kept, those looked at last: a step back costs nothing either. */
const MOST_PICTURES = 12;
const pictures = new Map<string, Promise<ReportPicture>>();

const ready = new WeakMap<Promise<ReportPicture>, ReportPicture>();
/** The same where it is there already: stepping on then takes one frame. */
export const readyPicture = (id: string, checkedAt: string): ReportPicture | undefined => {
  const known = pictures.get(`${id}@${checkedAt}`);
  return known && ready.get(known);
};

/** The meshes of a submission's newest report, fetched once for each report. @param checkedAt of that report */
export function pictureOf(id: string, checkedAt: string): Promise<ReportPicture> {
  const key = `${id}@${checkedAt}`;
  const known = pictures.get(key) ?? fetched<Packed>(`/api/submissions/${id}/picture`).then(unpacked);
  pictures.delete(key);
  pictures.set(key, known);
  // what failed is tried anew next time
  known.then(
    (p) => ready.set(known, p),
    () => pictures.delete(key),
  );
  const [oldest] = pictures.keys();
  if (pictures.size > MOST_PICTURES && oldest) pictures.delete(oldest);
  return known;
}

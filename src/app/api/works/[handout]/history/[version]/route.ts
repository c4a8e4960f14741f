import { z } from "zod";
import { versionDocument } from "@/server/works/versions";
import { endpoint, Refused } from "../../../../endpoint";

export const GET = endpoint<{ handout: string; version: string }>(
  "handout.work",
  "handout",
  async (person, { handout, version }) => {
    const found = z.uuid().safeParse(version).success ? await versionDocument(handout, person.id, version) : undefined;
    if (!found) throw new Refused(404, "This version is not in your history.");
    return found;
  },
);

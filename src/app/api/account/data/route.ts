import { z } from "zod";
import { personData } from "@/server/people/person-data";
import { personOfSession } from "@/server/people/people";
import { permit } from "@/server/permissions";
import { answered, Refused, SIGNED_OUT, zipFile } from "../../endpoint";
import { tokenIn } from "../../../cookie";

/** Everything the server holds of oneself, as a zip; of somebody else for whoever looks after the server. */
export const GET = (request: Request) =>
  answered(async () => {
    const token = tokenIn(request.headers.get("cookie"));
    const person = token ? await personOfSession(token) : undefined;
    if (!person) throw new Refused(401, SIGNED_OUT);
    const asked = new URL(request.url).searchParams.get("of");
    const of = asked === null ? person.id : z.uuid().safeParse(asked).data;
    if (of !== person.id) await permit(person, "server.run", person.id);
    if (!of) throw new Refused(404, "There is nobody by this address.");
    return zipFile(personData(of), "rusty-caliper-data.zip");
  });

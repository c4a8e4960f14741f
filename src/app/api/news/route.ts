import { NextResponse, type NextRequest } from "next/server";
import { LOOK, news } from "@/server/news";
import { Denied, permit, type Action } from "@/server/permissions";
import { visitor } from "../../visitor";

export const dynamic = "force-dynamic";

/** What a page may listen to, and what it must be allowed to see for it. */
const TOPICS: Record<string, Action> = {
  handout: "handout.view",
  class: "handout.mark",
  submission: "submission.view",
  exercise: "exercise.edit",
  work: "handout.work",
};
const MOST_TOPICS = 4;
/** A line now and then keeps the way open and tells the server that nobody is there any more. */
const BREATH_MS = 20_000;

/** One stream of events for a page: a word on what has changed, never what it is now. `?on=handout:ID,work:ID` */
export async function GET(request: NextRequest) {
  const person = await visitor();
  if (!person) return NextResponse.json({ sentence: "You are signed out." }, { status: 401 });
  const wanted = (request.nextUrl.searchParams.get("on") ?? "").split(",").slice(0, MOST_TOPICS);
  const prefixes: string[] = [];
  try {
    for (const topic of wanted) {
      if (topic === "server") {
        await permit(person, "server.run", person.id);
        // every class's checks are its business
        prefixes.push("class:");
        continue;
      }
      const [kind = "", id = ""] = topic.split(":");
      const action = TOPICS[kind];
      if (!action) throw new Denied();
      await permit(person, action, id);
      prefixes.push(kind === "work" ? `work:${id}:${person.id}:` : `${kind}:${id}`);
    }
  } catch (e) {
    if (e instanceof Denied) return NextResponse.json({ sentence: e.message }, { status: 404 });
    throw e;
  }
  const encode = new TextEncoder();
  let close = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (text: string) => {
        try {
          controller.enqueue(encode.encode(text));
        } catch {
          close();
        }
      };
      const stop = news().listen((topic) => {
        if (topic === LOOK) return send(`data: ${LOOK}\n\n`);
        const own = prefixes.find((p) => topic === p || (p.endsWith(":") && topic.startsWith(p)));
        // of one's work only version and window are told
        if (own) send(`data: ${own.startsWith("work:") ? `work:${topic.slice(own.length)}` : topic}\n\n`);
      });
      const breath = setInterval(() => send(": \n\n"), BREATH_MS);
      close = () => {
        clearInterval(breath);
        stop();
      };
      // who comes, or comes back, looks once: what happened in between was not told
      send(`retry: 2000\ndata: ${LOOK}\n\n`);
      request.signal.addEventListener("abort", () => {
        close();
        try {
          controller.close();
        } catch {
          // closed already by the other side
        }
      });
    },
    cancel: () => close(),
  });
  return new NextResponse(stream, {
    headers: {
      "content-type": "text/event-stream",
      "cache-control": "no-store, no-transform",
      "x-accel-buffering": "no",
    },
  });
}

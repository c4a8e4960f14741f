import { LOOK, news } from "@/server/news";
import { personOfSession, sessionTopic, type Person } from "@/server/people/people";
import { Denied, permit, type Action } from "@/server/permissions";
import { tokenIn } from "../../cookie";
import { answered, Refused, SIGNED_OUT } from "../endpoint";

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

/** How often a stream that nobody told anything asks whether it may still go on. */
const ASKS_MS = 60_000;

/** What somebody may listen to of what they ask for, as topics or the beginnings of topics. @throws Denied */
async function heardBy(person: Person, wanted: readonly string[]): Promise<string[]> {
  const prefixes: string[] = [];
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
  return prefixes;
}

/**
 * One stream of events for a page: a word on what has changed, never what it is now. `?on=handout:ID,work:ID` It ends
 * with the session, or when what it listens to is no longer for this person.
 */
export const GET = (request: Request) =>
  answered(async () => {
    const token = tokenIn(request.headers.get("cookie"));
    const person = token ? await personOfSession(token) : undefined;
    if (!token || !person) throw new Refused(401, SIGNED_OUT);
    const wanted = (new URL(request.url).searchParams.get("on") ?? "").split(",").slice(0, MOST_TOPICS);
    const prefixes = await heardBy(person, wanted);
    const mayGoOn = async () =>
      (await personOfSession(token)) !== undefined &&
      heardBy(person, wanted).then(
        () => true,
        (e) => !(e instanceof Denied),
      );
    return new Response(streamOf(request.signal, prefixes, token, person, mayGoOn), {
      headers: {
        "content-type": "text/event-stream",
        "cache-control": "no-store, no-transform",
        "x-accel-buffering": "no",
      },
    });
  });

function streamOf(
  gone: AbortSignal,
  prefixes: readonly string[],
  token: string,
  person: Person,
  mayGoOn: () => Promise<boolean>,
): ReadableStream<Uint8Array> {
  const encode = new TextEncoder();
  const session = sessionTopic(token),
    standing = `standing:${person.id}`;
  let rest = () => {};
  return new ReadableStream<Uint8Array>({
    start(controller) {
      const close = () => {
        rest();
        try {
          controller.close();
        } catch {
          // closed already by the other side
        }
      };
      const send = (text: string) => {
        try {
          controller.enqueue(encode.encode(text));
        } catch {
          close();
        }
      };
      // a database that is away ends nothing
      const ask = () =>
        void mayGoOn().then(
          (may) => may || close(),
          () => {},
        );
      const stop = news().listen((topic) => {
        if (topic === session) return close();
        if (topic === standing) return ask();
        if (topic === LOOK) {
          // it may have been the end of the session that was missed
          ask();
          return send(`data: ${LOOK}\n\n`);
        }
        const own = prefixes.find((p) => topic === p || (p.endsWith(":") && topic.startsWith(p)));
        // of one's work only version and window are told
        if (own) send(`data: ${own.startsWith("work:") ? `work:${topic.slice(own.length)}` : topic}\n\n`);
      });
      const breath = setInterval(() => send(": \n\n"), BREATH_MS);
      const asking = setInterval(ask, ASKS_MS);
      rest = () => {
        clearInterval(breath);
        clearInterval(asking);
        stop();
      };
      // who comes, or comes back, looks once: what happened in between was not told
      send(`retry: 2000\ndata: ${LOOK}\n\n`);
      gone.addEventListener("abort", close);
    },
    cancel: () => rest(),
  });
}

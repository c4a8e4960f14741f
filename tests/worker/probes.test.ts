import { randomUUID } from "node:crypto";
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { emptyPart } from "@/core/part/document";
import { tripodFoot } from "@/demo/parts";
import { makeCourse } from "@/server/courses/courses";
import { closeDatabase, one, rows, transaction } from "@/server/database";
import { handout } from "@/server/handouts/handouts";
import { closeSession, openSession, type Person } from "@/server/people/people";
import { openWork } from "@/server/works/works";
import { dropPerson, handoutNumbered, newStudent, newSubmission } from "./sample";

/**
 * What nobody sends by accident, at every page, every part of the API and every action, over HTTP: nothing may end in
 * a fault of the server, and whatever is refused says so in a sentence.
 */
const isLong = process.env["CALIPER_LONG"] === "1";
const SERVER = process.env["CALIPER_URL"] ?? "";
const COOKIE = "caliper-session";
const real = {} as Record<"course" | "exercise" | "handout" | "submission", string>;
let teacher: Person, student: Person, cookies: Record<"teacher" | "student", string>;

const sessionOf = async (p: Person) => `${COOKIE}=${(await openSession(p.id)).token}`;
beforeAll(async () => {
  const from = await handoutNumbered("WS-08");
  real.course = await makeCourse({ title: `Probes ${randomUUID()}`, term: "Spring", timeZone: "Europe/London" });
  [teacher, student] = [await newStudent(real.course, "instructor"), await newStudent(real.course)];
  real.exercise = (
    await one<{ id: string }>(
      `insert into exercises (course_id, document, prepared, prepared_version)
       select $2, x.document, x.prepared, 1 from exercises x join handouts h on h.exercise_id = x.id
       where h.id = $1 returning id`,
      [from.id, real.course],
    )
  ).id;
  const handouts = await rows<{ id: string }>(
    `insert into handouts (exercise_id, course_id, exercise, revision, due_at, sheet, drawing, targets)
     select $3, $2, exercise, 1, now() + interval '1 day', sheet, drawing, targets
     from handouts, generate_series(1, 2) where id = $1 returning id`,
    [from.id, real.course, real.exercise],
  );
  real.handout = handouts[0]!.id;
  const part = emptyPart("a", "mm", { name: "Steel", density: 8 });
  real.submission = await newSubmission(real.handout, student.id, part);
  await newSubmission(handouts[1]!.id, student.id, part);
  cookies = { teacher: await sessionOf(teacher), student: await sessionOf(student) };
});
afterAll(async () => {
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from courses where id = $1", [real.course]);
  });
  for (const p of [teacher, student]) await dropPerson(p.id);
  await closeDatabase();
});

const files = execFileSync("git", ["ls-files", "-co", "--exclude-standard", "src/app"], { encoding: "utf8" }).split(
  "\n",
);
/** The address of a page or handler with something put in for each of its names. */
const addressOf = (file: string, put: (name: string) => string) =>
  file
    .replace(/^src\/app/, "")
    .replace(/\/(route|page)\.tsx?$/, "")
    .replace(/\[(\w+)\]/g, (_, name: string) => put(name)) || "/";
/** What a name in an address stands for, by the folder it stands in. */
const thingOf = (file: string): string => {
  const [, kind = ""] = /\/(courses|exercises|handouts|submissions|works|bench)\/\[/.exec(file) ?? [];
  const known: Record<string, keyof typeof real> = {
    courses: "course",
    exercises: "exercise",
    handouts: "handout",
    submissions: "submission",
    works: "handout",
    bench: "handout",
  };
  return real[known[kind]!] ?? "x";
};
const NO_ID = ["%ff", "%00", "x%00y", "%F0%9F%94", "x", "..%2f..", "00000000-0000-4000-8000-000000000000"];
const HALF = "half \ud800 a pair";
const QUERIES = ["?q=%00", "?q=%ff&month=%00", "?tag=%00&level=x&course=%00&page=-1"];

interface Asked {
  readonly path: string;
  readonly init?: RequestInit;
}
const describing = ({ path, init }: Asked, status: number) =>
  `${init?.method ?? "GET"} ${path} ${String(init?.body ?? "").slice(0, 60)} → ${status}`;

/** Asks all of them, a few at a time. @returns what is wrong with the answers */
async function faultsOf(list: readonly Asked[], judge: (r: Response, text: string) => string | undefined) {
  const left = [...list],
    faults: string[] = [];
  const worker = async () => {
    for (let next = left.shift(); next; next = left.shift()) {
      const r = await fetch(SERVER + next.path, { redirect: "manual", ...next.init });
      // a stream of news goes on
      const isStream = r.headers.get("content-type")?.includes("event-stream");
      const text = isStream ? "" : await r.text();
      if (isStream) await r.body?.cancel();
      const wrong = judge(r, text);
      if (wrong) faults.push(`${describing(next, r.status)}: ${wrong}`);
    }
  };
  await Promise.all([worker(), worker(), worker(), worker()]);
  return faults;
}
/** A refusal of the API is JSON with a sentence. */
function apiFault(r: Response, text: string): string | undefined {
  if (r.status >= 500) return text.slice(0, 200);
  if (r.status < 400) return undefined;
  try {
    const { sentence } = JSON.parse(text) as { sentence?: unknown };
    return typeof sentence === "string" && /[.!]$/.test(sentence) ? undefined : `no sentence: ${text.slice(0, 80)}`;
  } catch {
    return `no JSON: ${text.slice(0, 80)}`;
  }
}

const ID = randomUUID();
const BODIES = [
  ...["", "{", "null", "[]", "7", '"\\u0000"', "{}", `{"id":"\\ud800"}`, '{"__proto__":{"x":1}}'],
  JSON.stringify({ id: ID, owner: ID, window: "w", version: 1, document: { name: "a\0b" }, name: HALF, text: "a\0" }),
  JSON.stringify({ id: ID, entries: [{ id: ID, what: { do: "comment", text: "a\0b" } }], about: HALF, text: HALF }),
  "[".repeat(60_000),
];
const METHODS = ["GET", "POST", "PUT", "PATCH", "DELETE"] as const;

describe("the API", () => {
  const routes = files.filter((f) => f.endsWith("/route.ts"));
  it.each(routes)("%s", async (file) => {
    const has = METHODS.filter((m) => new RegExp(`export (const|async function|function) ${m}\\b`).test(textOf(file)));
    const asked = Object.values({ none: "", ...cookies }).flatMap((cookie): Asked[] => {
      const headers = { cookie, "content-type": "application/json" };
      const right = addressOf(file, () => thingOf(file));
      const bodies = has
        .filter((m) => m !== "GET")
        .flatMap((method) => BODIES.map((body) => ({ path: right, init: { method, headers, body } })));
      return [
        ...bodies,
        ...METHODS.map((method) => ({ path: right, init: { method, headers } })),
        ...["?as=%00", "?on=%00,work:%00"].map((q) => ({ path: right + q, init: { headers } })),
        ...[...NO_ID, ...Object.values(real)].flatMap((id) =>
          has.map((method) => ({ path: addressOf(file, () => id), init: { method, headers } })),
        ),
      ];
    });
    expect(await faultsOf(asked, file.includes("health") ? () => undefined : apiFault)).toEqual([]);
  });
  it("where there is nothing, says so", async () => {
    const nowhere = ["/api", "/api/nothing", "/api/works", "/api/%ff", "/api/works/%ff/x/y"].map((path) => ({ path }));
    expect(await faultsOf(nowhere, (r, text) => (r.status < 400 ? "is there" : apiFault(r, text)))).toEqual([]);
  });
});

describe("large bodies", () => {
  const large = JSON.stringify({ text: "x".repeat(70_000) });
  it("of strangers are not read, wherever they go", async () => {
    const headers = { "content-type": "application/json", "next-action": "none", origin: SERVER };
    const paths = ["/", "/courses", `/api/works/${real.handout}`, `/api/handouts/${real.handout}/practice`];
    for (const cookie of ["", `${COOKIE}=${randomUUID()}`])
      for (const path of paths) {
        const r = await fetch(SERVER + path, { method: "POST", headers: { ...headers, cookie }, body: large });
        expect([path, r.status, ((await r.json()) as { sentence: string }).sentence]).toEqual([
          path,
          401,
          expect.stringMatching(/^You are signed out/),
        ]);
      }
  });
  it("that tell no length are as large as they may be", async () => {
    const body = new ReadableStream({
      start(to) {
        to.enqueue(new TextEncoder().encode(large));
        to.close();
      },
    });
    const init = { method: "POST", body, duplex: "half", headers: { "content-type": "text/plain" } };
    expect((await fetch(`${SERVER}/courses`, init as RequestInit)).status).toBe(401);
  });
  it("of who is signed in are read", async () => {
    const r = await fetch(`${SERVER}/api/submissions/${real.submission}/entries`, {
      method: "POST",
      headers: { cookie: cookies.teacher, "content-type": "application/json" },
      body: large,
    });
    expect(r.status).toBe(422);
  });
});

describe("a stream of news", () => {
  /** What came of a stream until it ended, or until nothing more is waited for. */
  async function heard(r: Response, ms: number): Promise<{ text: string; isOver: boolean }> {
    const reader = r.body!.pipeThrough(new TextDecoderStream()).getReader();
    const late = new Promise<undefined>((go) => setTimeout(() => go(undefined), ms));
    for (let text = ""; ;) {
      const next = await Promise.race([reader.read(), late]);
      if (!next) void reader.cancel();
      if (!next || next.done) return { text, isOver: next !== undefined };
      text += next.value;
    }
  }
  const listening = (cookie: string) => fetch(`${SERVER}/api/news?on=handout:${real.handout}`, { headers: { cookie } });

  it("ends with the session it was opened by, and with no other", async () => {
    const own = await sessionOf(student);
    const [ending, going] = [await listening(own), await listening(cookies.student)];
    const token = own.slice(COOKIE.length + 1);
    const both = Promise.all([heard(ending, 9_000), heard(going, 1_500)]);
    await closeSession(token);
    const [ended, goes] = await both;
    expect(ended.isOver).toBe(true);
    expect(goes.isOver).toBe(false);
    expect((await listening(own)).status).toBe(401);
  });
  it("ends when its listener is taken out of the course", async () => {
    const leaves = await newStudent(real.course);
    const stream = await listening(await sessionOf(leaves));
    const all = heard(stream, 9_000);
    await rows("update enrolments set left_at = now() where person_id = $1", [leaves.id]);
    expect((await all).isOver).toBe(true);
    await dropPerson(leaves.id);
  });
});

describe("an id that something else has", () => {
  it("is refused everywhere it is sent, and what has it stays as it is", async () => {
    const [one, two] = [await newStudent(real.course), await newStudent(real.course)];
    const sent = async (who: Person, method: string, path: string, body: object) => {
      const headers = { cookie: await sessionOf(who), "content-type": "application/json" };
      const r = await fetch(SERVER + path, { method, headers, body: JSON.stringify({ owner: who.id, ...body }) });
      return [r.status, ((await r.json()) as { sentence?: string }).sentence] as const;
    };
    const taken = [409, expect.stringMatching(/under an id that something else has/)];
    const document = tripodFoot();
    const works = `/api/works/${real.handout}`;
    const [handInId, asideId, entryId] = [randomUUID(), randomUUID(), randomUUID()];
    for (const p of [one, two]) {
      // before the Bench was opened there is nothing to save into
      const save = { id: randomUUID(), document, version: 1, window: "a" };
      expect(await sent(p, "PUT", works, save)).toEqual([409, expect.stringMatching(/has not been opened yet/)]);
      await openWork(await handout(real.handout), p.id);
      expect(await sent(p, "PUT", works, save)).toEqual([200, undefined]);
    }
    const handIn = `/api/handouts/${real.handout}/hand-in`;
    expect((await sent(one, "POST", handIn, { id: handInId, version: 2 }))[0]).toBe(200);
    expect(await sent(two, "POST", handIn, { id: handInId, version: 2 })).toEqual(taken);
    // a late save is put aside under its id
    expect((await sent(one, "PUT", works, { id: asideId, document, version: 1, window: "b" }))[0]).toBe(409);
    expect(await sent(two, "PUT", works, { id: asideId, document, version: 1, window: "b" })).toEqual(taken);
    const mine = await newSubmission(real.handout, two.id, document, 2);
    const entries = { entries: [{ id: entryId, what: { do: "accept" } }] };
    expect((await sent(teacher, "POST", `/api/submissions/${real.submission}/entries`, entries))[0]).toBe(200);
    expect(await sent(teacher, "POST", `/api/submissions/${mine}/entries`, entries)).toEqual(taken);
    for (const p of [one, two]) await dropPerson(p.id);
  });
});

describe("pages", () => {
  it.each(files.filter((f) => f.endsWith("/page.tsx")))("%s", async (file) => {
    const asked = Object.values({ none: "", ...cookies }).flatMap((cookie): Asked[] => {
      const init = { headers: { cookie } };
      return [
        ...NO_ID.map((id) => ({ path: addressOf(file, () => id), init })),
        ...["", ...QUERIES].map((q) => ({ path: addressOf(file, () => thingOf(file)) + q, init })),
        ...Object.values(real).map((id) => ({ path: addressOf(file, () => id), init })),
      ];
    });
    const judge = (r: Response, text: string) => {
      if (r.status >= 500) return text.slice(0, 200);
      return r.status >= 400 && !/There is nothing here for you/.test(text)
        ? `no sentence: ${text.slice(0, 80)}`
        : undefined;
    };
    expect(await faultsOf(asked, judge)).toEqual([]);
  });
});

function textOf(file: string): string {
  return readFileSync(file, "utf8");
}

interface Built {
  readonly workers: Record<string, unknown>;
  readonly filename: string;
  readonly exportedName: string;
}
const built = Object.entries(
  (JSON.parse(textOf(".next/server/server-reference-manifest.json")) as { node: Record<string, Built> }).node,
);

describe("actions", () => {
  const source = files
    .filter((f) => /actions\.ts$|from-form\.ts$/.test(f))
    .map(textOf)
    .join("\n");
  const fields = new Set([...source.matchAll(/form\.get(?:All)?\("([\w-]+)"\)/g)].map((m) => m[1]!));
  const KEYS = [
    "name email password again old code role group days uses title term timeZone",
    "person hasLeft text typed id number to",
  ].flatMap((keys) => keys.split(" "));
  const filled = (value: unknown) => Object.fromEntries(KEYS.map((k) => [k, value]));
  const HOSTILE = [null, 7, "a\0b", HALF, {}, "x".repeat(9_000), filled("a\0b"), filled(HALF)];

  it.each(built.map(([id, b]) => [b.exportedName, id, b] as const))("%s", async (_, id, { workers, filename }) => {
    expect(files).toContain(filename);
    // the page it belongs to
    const pages = Object.keys(workers).sort((a, b) => a.length - b.length);
    const page = pages[0]!.replace(/^app/, "src/app");
    const path = addressOf(`${page}.tsx`, () => thingOf(page));
    const things = Object.values(real);
    const lists = [
      [],
      ...HOSTILE.flatMap((v, i) => [
        [v, v, v],
        [things[i % things.length], v, v],
      ]),
    ];
    const forms = ["a\0b", HALF, "", ID, "-1e999"].flatMap((value) =>
      [undefined, real.handout, real.exercise].map((thing) => {
        const body = new FormData();
        for (const f of fields) {
          const isThing = thing && /^(id|course|handout|submission)$/.test(f);
          body.append(`1_${f}`, isThing ? thing : value);
        }
        return body;
      }),
    );
    const called = async (cookie: string): Promise<Asked[]> => {
      const headers = { cookie, "next-action": id, origin: SERVER };
      const plain = { ...headers, "content-type": "text/plain;charset=UTF-8" };
      return [
        ...lists.map((a) => ({ path, init: { method: "POST", headers: plain, body: JSON.stringify(a) } })),
        ...forms.map((form, i) => {
          const body = new FormData();
          for (const [k, v] of form) body.append(k, v);
          // alone, or after the state of the form
          body.append("0", i % 2 ? '["$K1"]' : '[{},"$K1"]');
          return { path, init: { method: "POST", headers, body } };
        }),
      ];
    };
    const judge = (r: Response, text: string) => (r.status >= 500 ? text.slice(0, 300) : undefined);
    // in the plain run each action is sent a third of it, another third than the one before
    const own = (_: Asked, i: number) => isLong || i % 3 === built.findIndex(([b]) => b === id) % 3;
    // a session of its own for each: some end them
    const strangers = [...(await called("")), ...(await called(await sessionOf(student)))].filter(
      (_, i) => i % 5 === 0,
    );
    const asked = [...strangers, ...(await called(await sessionOf(teacher)))].filter(own);
    expect(await faultsOf(asked, judge)).toEqual([]);
  });
});

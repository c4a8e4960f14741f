import { tripodFoot } from "@/demo/parts";
import type { PartDocument } from "@/core/part/document";
import { closeDatabase, one, rows } from "@/server/database";
import { handout } from "@/server/handouts/handouts";
import { openSession } from "@/server/people/people";
import { openWork } from "@/server/works/works";

/** Makes students for the load, signed in, and prints who they are and what they work on. */
const count = Number(process.argv[2] ?? 200);
const SIZE = 40_000;

/** Drawings beside the foot, each of so many lines. */
const LINES = 40;

/** The tripod foot with drawings of many lines beside it, as large as the parts of a diligent student. */
function heavyFoot(): PartDocument {
  const steps: unknown[] = [...tripodFoot().steps];
  for (let i = 0; JSON.stringify(steps).length < SIZE - 2_000; i++) {
    const curves = Array.from({ length: LINES }, (_, j) => {
      const [x, y] = [(j % 20) * 7, Math.floor(j / 20) * 7 + 20 * i];
      return { id: `l${j}`, kind: "line", start: [x, y + 100], end: [x + 5, y + 103], construction: true };
    });
    const sketch = { plane: { base: "top" }, curves, constraints: [], dimensions: [] };
    steps.push({ id: `layout${i}`, kind: "sketch", sketch });
  }
  return { ...tripodFoot(), steps } as PartDocument;
}

const h = await handout((await one<{ id: string }>("select id from handouts where exercise->>'number' = 'WS-08'")).id);
const people = [];
for (let i = 0; i < count; i++) {
  const p = await one<{ id: string; name: string }>(
    "insert into people (name, email, password_hash) values ($1, $2, 'none') returning id, name",
    [`Load ${i}`, `load-${i}@elsewhere.example`],
  );
  await rows("insert into enrolments (course_id, person_id, role) values ($1, $2, 'student')", [h.course_id, p.id]);
  await openWork(h, p.id);
  people.push({ ...p, token: (await openSession(p.id)).token });
}
process.stdout.write(JSON.stringify({ handout: h.id, document: heavyFoot(), people }));
await closeDatabase();

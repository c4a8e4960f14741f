import { create, type StoreApi, type UseBoundStore } from "zustand";
import type { ReportPicture } from "@/core/check/check";
import { decided, type Decided, type Decision, type Entry, type Pin } from "@/core/grade/decision";
import { markOf, type Mark } from "@/core/grade/mark";
import type { DeskSubmission } from "@/server/marking/desk";
import type { QueueRow } from "@/server/marking/desk-queue";
import type { Remark } from "@/server/marking/marking";
import { fetchSubmission, pictureOf, readyPicture, Trouble, type DeskHandout } from "./desk-data";
import { inOrder, passes, type Filter } from "./desk-order";
import { Holding, type Held } from "./held";
import { Outbox, type OutboxState } from "./outbox";

export const VIEWS = [
  "difference",
  "reference",
  "submission",
  "edges",
  "section",
  "deviation",
  "sheet",
  "steps",
  "numbers",
  "tries",
] as const;
export type View = (typeof VIEWS)[number];

/** A submission on the desk, with what follows from its history. */
export interface Item {
  readonly desk: DeskSubmission;
  readonly decided: Decided;
  readonly mark: Mark;
}

/** What is being typed. */
export type Writing =
  | { readonly kind: "overrule"; readonly line: string; readonly points: number }
  | {
      readonly kind: "comment";
      readonly line?: string | undefined;
      readonly pin?: Pin | undefined;
      readonly comment?: string;
      readonly text?: string;
    }
  | { readonly kind: "ask" | "answer" };

export interface DeskState {
  readonly me: { readonly id: string; readonly name: string };
  readonly handout: DeskHandout;
  readonly queue: readonly QueueRow[];
  /** People in the order they are worked through: it stays while one works, so that nothing jumps. */
  readonly order: readonly string[];
  readonly at: string;
  readonly items: Readonly<Record<string, Item>>;
  readonly picture: { readonly of: string; readonly meshes: ReportPicture } | undefined;
  readonly trouble: string | undefined;
  readonly view: View;
  readonly line: string | undefined;
  readonly writing: Writing | undefined;
  readonly isPinning: boolean;
  readonly filter: Filter;
  readonly text: string;
  readonly note: string | undefined;
  readonly sending: OutboxState;
  /** What is given back in a moment, and can still be taken back. */
  readonly held: Held | undefined;
  readonly holding: Holding;
  /** Asked before it is returned: it was not looked at. */
  readonly asked: string | undefined;
  readonly remarks: readonly Remark[];
  readonly outbox: Outbox;
  go(submission: string): void;
  /** On or back by so many of those shown. */
  step(by: number): void;
  decide(what: Decision, of?: string): void;
  /** Gives back the one that is shown: asked about where nobody looked at it, and held for some seconds. */
  giveBack(): void;
  set(change: Partial<Pick<DeskState, "view" | "line" | "writing" | "isPinning" | "filter" | "text" | "note">>): void;
  take(queue: readonly QueueRow[]): void;
  sortAnew(): void;
  refresh(submission: string): Promise<void>;
  /** One of one's own remarks is not offered any more. */
  forget(remark: Remark): void;
}
export type DeskStore = UseBoundStore<StoreApi<DeskState>>;

/** Rows in the order they are shown and stepped through. */
export const shownRows = (s: Pick<DeskState, "queue" | "order" | "filter" | "text">): QueueRow[] => {
  const byPerson = new Map(s.queue.map((r) => [r.personId, r]));
  return s.order.flatMap((p) => byPerson.get(p) ?? []).filter((r) => passes(r, s.filter, s.text));
};

export function deskStore(start: {
  me: DeskState["me"];
  handout: DeskHandout;
  queue: readonly QueueRow[];
  first: DeskSubmission;
  remarks: readonly Remark[];
}): DeskStore {
  const { handout } = start;
  const itemOf = (desk: DeskSubmission): Item => {
    const stands = decided(desk.history);
    const { dueAt, ...rules } = handout.rules;
    const mark = markOf({
      grade: desk.grade ?? undefined,
      checkedAt: desk.checkedAt ?? undefined,
      decided: stands,
      rules: { ...rules, due_at: new Date(dueAt) },
      lateSeconds: desk.lateSeconds,
      returned: desk.returned?.points,
    });
    return { desk, decided: stands, mark };
  };
  return create<DeskState>((set, get) => {
    /** The row of the queue follows what was decided here at once. */
    const put = (desk: DeskSubmission) => {
      const item = itemOf(desk);
      const { mark, decided: d } = item;
      const change = (r: QueueRow): QueueRow =>
        r.submission === desk.id
          ? {
              ...r,
              points: desk.grade ? mark.points : r.points,
              needs: mark.needs.filter((n) => n !== "failed" || desk.state === "failed"),
              isAccepted: d.acceptedAt !== undefined,
              isReturned: desk.returned !== null,
              turn: d.turn ?? null,
            }
          : r;
      set((s) => ({ items: { ...s.items, [desk.id]: item }, queue: s.queue.map(change) }));
    };
    const withHistory = (submission: string, history: readonly Entry[], returned?: DeskSubmission["returned"]) => {
      const item = get().items[submission];
      if (!item) return;
      put({ ...item.desk, history, returned: returned === undefined ? item.desk.returned : returned });
    };
    const outbox = new Outbox({
      owner: start.me.id,
      shelf: typeof localStorage === "undefined" ? NO_SHELF : localStorage,
      fetch: (...a) => fetch(...a),
      tell: (sending) => set({ sending }),
      took: (submission, history, returned) => {
        // what was decided since is not lost sight of
        const later = outbox.of(submission).map((o) => entryOf(o.id, o.what, start.me.name));
        withHistory(submission, [...history, ...later], returned);
      },
      refused: (submission, note) => {
        set({ note });
        void get().refresh(submission);
      },
    });
    const holding = new Holding((held) => set({ held }));
    // what somebody has done something with, and since when what is shown stands
    const touched = new Set<string>();
    let since = performance.now();
    const isSeen = (item: Item) =>
      item.decided.acceptedAt !== undefined || touched.has(item.desk.id) || performance.now() - since > LOOKED_AT_MS;
    const load = async (submission: string): Promise<void> => {
      if (!get().items[submission]) await get().refresh(submission);
    };
    const show = async (submission: string): Promise<void> => {
      try {
        await load(submission);
        const checkedAt = get().items[submission]?.desk.checkedAt;
        const meshes = checkedAt ? await pictureOf(submission, checkedAt) : undefined;
        if (get().at === submission) set({ picture: meshes && { of: submission, meshes }, trouble: undefined });
      } catch (e) {
        if (get().at === submission) set({ trouble: e instanceof Trouble ? e.message : "It could not be fetched." });
      }
    };
    /** The next one is there before it is asked for. */
    const ahead = () => {
      const rows = shownRows(get()).filter((r) => r.submission);
      const i = rows.findIndex((r) => r.submission === get().at);
      for (const r of [rows[i + 1], rows[i + 2], rows[i - 1]]) {
        const id = r?.submission;
        if (!id) continue;
        load(id)
          .then(() => {
            const checkedAt = get().items[id]?.desk.checkedAt;
            return checkedAt ? pictureOf(id, checkedAt) : undefined;
          })
          .catch(() => {});
      }
    };
    const first = itemOf(start.first);
    const queue = inOrder(start.queue);
    return {
      me: start.me,
      handout,
      queue,
      order: queue.map((r) => r.personId),
      at: start.first.id,
      items: { [start.first.id]: first },
      picture: undefined,
      trouble: undefined,
      view: "difference",
      line: undefined,
      writing: undefined,
      isPinning: false,
      filter: "all",
      text: "",
      note: undefined,
      sending: { kind: "kept" },
      held: undefined,
      holding,
      asked: undefined,
      remarks: start.remarks,
      outbox,
      go(submission) {
        if (submission !== get().at) {
          const checkedAt = get().items[submission]?.desk.checkedAt;
          const meshes = checkedAt ? readyPicture(submission, checkedAt) : undefined;
          since = performance.now();
          const afresh = { line: undefined, writing: undefined, isPinning: false, note: undefined, asked: undefined };
          set({ at: submission, ...afresh, ...(meshes && { picture: { of: submission, meshes } }) });
          // the address follows when the picture stands
          requestAnimationFrame(() => window.history.replaceState(null, "", `/submissions/${get().at}`));
          if (meshes) return void setTimeout(ahead, AHEAD_MS);
        }
        void show(submission).then(ahead);
      },
      step(by) {
        const rows = shownRows(get()).filter((r) => r.submission);
        const i = rows.findIndex((r) => r.submission === get().at);
        const next = rows[i < 0 ? 0 : i + by]?.submission;
        if (next) get().go(next);
        else set({ note: by > 0 ? "This is the last one." : "This is the first one." });
      },
      decide(what, of = get().at) {
        // what is held goes first: decisions arrive in the order they were made
        holding.flush();
        const item = get().items[of];
        if (!item) return;
        touched.add(of);
        const id = crypto.randomUUID();
        const entry = entryOf(id, what, start.me.name);
        // given back is what the server says is given back
        put({ ...item.desk, history: [...item.desk.history, entry] });
        const text = what.do === "comment" ? what.text : what.do === "overrule" ? what.reason : "";
        const about = "line" in what ? (item.mark.lines.find((l) => l.id === what.line)?.check ?? "") : "";
        if (text)
          set((s) => ({
            remarks: [{ about, text }, ...s.remarks.filter((r) => r.text !== text || r.about !== about)],
          }));
        outbox.send({ id, submission: of, what });
      },
      giveBack() {
        const { at, items, asked, decide } = get();
        const item = items[at];
        if (!item?.desk.grade) return;
        const { person } = item.desk;
        if (!isSeen(item) && asked !== at)
          return set({
            asked: at,
            note: `You have not looked at the part of ${person} yet. Return it once more to give it back unseen.`,
          });
        set({ asked: undefined, note: undefined });
        holding.hold(`${person}: returned`, () => decide({ do: "return" }, at));
      },
      set(change) {
        if ("view" in change || change.line || change.writing) touched.add(get().at);
        set(change);
      },
      take(queue) {
        const before = get().queue;
        set((s) => {
          const known = new Set(s.order);
          const fresh = inOrder(queue.filter((r) => !known.has(r.personId))).map((r) => r.personId);
          return { queue, order: [...s.order, ...fresh] };
        });
        // somebody handed in anew, or another marks beside us: what stands here already is not fetched again
        const { at } = get();
        const row = queue.find((r) => r.submission === at),
          own = before.find((r) => r.submission === at);
        const isOther = row && own && RELEVANT.some((k) => String(row[k]) !== String(own[k]));
        if (!isOther || outbox.of(at).length) return;
        void get()
          .refresh(at)
          .then(() => show(at));
      },
      forget(remark) {
        set((s) => ({ remarks: s.remarks.filter((r) => r.text !== remark.text || r.about !== remark.about) }));
        // not arrived, it is offered again next time and can be forgotten again
        fetch(`/api/submissions/${get().at}/remarks`, {
          method: "DELETE",
          headers: { "content-type": "application/json" },
          body: JSON.stringify(remark),
        }).catch(() => {});
      },
      sortAnew: () => set((s) => ({ order: inOrder(s.queue).map((r) => r.personId) })),
      async refresh(submission) {
        const desk = await fetchSubmission(submission);
        const waiting = outbox.of(submission).map((o) => entryOf(o.id, o.what, start.me.name));
        const known = new Set(desk.history.map((e) => e.id));
        put({ ...desk, history: [...desk.history, ...waiting.filter((e) => !known.has(e.id))] });
      },
    };
  });
}

/** Shown so long, a part was looked at. */
const LOOKED_AT_MS = 3_000;
/** What comes next is fetched when what is asked for stands. */
const AHEAD_MS = 120;

const entryOf = (id: string, what: Decision, by: string): Entry => ({ id, at: new Date().toISOString(), by, what });
const RELEVANT = ["state", "points", "needs", "isAccepted", "isReturned", "turn"] as const;
const NO_SHELF = { getItem: () => null, setItem: () => {}, removeItem: () => {} };

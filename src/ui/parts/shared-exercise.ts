import type { Exercise } from "@/core/check/exercise/exercise";
import { changeExercise, type ExerciseChange } from "@/core/exercise/change";
import { atOdds, differences, isFrame, thingsAt, withThings, type Things } from "@/core/exercise/things";
import { mapHistory, record, redo, startHistory, undo, type History } from "@/core/units/history";
import { done, type Outcome } from "@/core/units/refusal";
import type { Measuring } from "@/server/exercises/exercises";
import { browserKeep, type Keep } from "./keep";
import { Saver, type Answer, type SaveState } from "./saver";

/** What somebody else has changed, or another window of one's own. */
export interface Heard {
  readonly things: Things;
  readonly by: string | undefined;
}

/** Two have changed the same: theirs stands, one's own is offered. */
export interface Clash {
  readonly place: string;
  readonly mine: unknown;
  /** Who changed it. */
  readonly by: string | undefined;
}

export interface SharedOpening {
  readonly id: string;
  readonly exercise: Exercise;
  readonly version: number;
  /** Whoever is signed in. */
  readonly owner: string;
}

interface Hearing {
  /** Where what was changed is kept. */
  readonly saved: (s: SaveState) => void;
  /** The exercise as it is now. @param theirs what somebody else has changed in it; undefined: it was changed here */
  readonly changed: (history: History<Exercise>, theirs: Heard | undefined) => void;
  readonly clash: (clashes: readonly Clash[]) => void;
  readonly measured?: (m: Measuring) => void;
}

const MOST_UNDONE = 200;

/**
 * An exercise that is changed here and, it may be, elsewhere at the same time: by another page of it, its drawing
 * board, its Bench, or somebody else. Only what was changed is sent; what others change stands here at once, also in
 * what undoing goes back to. Where two change the same, theirs stands and one's own is offered.
 */
export class SharedExercise {
  history: History<Exercise>;
  readonly saver: Saver<Things>;
  private base: Exercise;
  private looking: Promise<void> | undefined;
  private isToLook = false;
  private isClosed = false;
  private measuredAt = -1;
  private readonly keep: Keep<Things>;
  private readonly url: string;

  constructor(
    { id, exercise, version, owner }: SharedOpening,
    private readonly hearing: Hearing,
    keep?: Keep<Things>,
  ) {
    this.base = exercise;
    this.history = startHistory(exercise);
    this.url = `/api/exercises/${id}`;
    this.keep = keep ?? browserKeep<Things>(owner, this.url);
    this.saver = new Saver<Things>(
      {
        url: this.url,
        owner,
        keep: this.keep,
        tell: hearing.saved,
        merge: (answer, sent) => this.answered(answer, sent.isTaken ? sent.document : {}),
      },
      version,
    );
  }

  get present(): Exercise {
    return this.history.present;
  }

  /** Takes up what an earlier window could not send. */
  async open(): Promise<void> {
    const left = await this.keep.read().catch(() => []);
    const last = left[left.length - 1];
    if (!last) return;
    this.history = startHistory(withThings(this.base, last.document));
    this.hearing.changed(this.history, undefined);
    await this.saver.takeUp();
  }

  apply(change: ExerciseChange): Outcome<void> {
    const next = changeExercise(this.present, change);
    if (!next.ok) return next;
    this.moveTo(record(this.history, next.value, MOST_UNDONE));
    return done(undefined);
  }

  undo = (): void => this.moveTo(undo(this.history));
  redo = (): void => this.moveTo(redo(this.history));

  /** One's own after all. */
  insist(clash: Clash): void {
    this.moveTo(record(this.history, withThings(this.present, { [clash.place]: clash.mine }), MOST_UNDONE));
  }

  private moveTo(history: History<Exercise>): void {
    if (history.present === this.present) return;
    this.history = history;
    this.hearing.changed(history, undefined);
    // what is on its way may have arrived or not: what it changed is said once more
    const underway = Object.keys(this.saver.underway ?? {});
    this.saver.save({ ...thingsAt(this.present, underway), ...differences(this.base, this.present) });
  }

  /** @param taken what the server has now of one's own @returns what it still has to be sent */
  private answered({ theirs = {}, by }: Answer, taken: Things): Things | undefined {
    this.base = withThings(this.base, taken);
    this.follow(theirs, by);
    const left = differences(this.base, this.present);
    return Object.keys(left).length ? left : undefined;
  }

  /** What others have changed becomes what all stands on. */
  private follow(theirs: Things, by: string | undefined): void {
    const news = differences(this.base, withThings(this.base, theirs));
    if (!Object.keys(news).length) return;
    const mine = differences(this.base, this.present);
    const odds = atOdds(mine, news);
    // an order of one's own stays: what it does not name stands at its end
    const taken = Object.fromEntries(Object.entries(news).filter(([p]) => !(isFrame(p) && p in mine)));
    this.base = withThings(this.base, news);
    this.history = mapHistory(this.history, (e) => withThings(e, taken));
    this.hearing.changed(this.history, { things: news, by });
    if (odds.length) this.hearing.clash(odds.map((place) => ({ place, mine: mine[place], by })));
  }

  /** Something has changed on the server, or may have. */
  look(): Promise<void> {
    this.isToLook = true;
    this.looking ??= this.lookOn()
      .catch(() => {})
      .finally(() => (this.looking = undefined));
    return this.looking;
  }

  private async lookOn(): Promise<void> {
    while (this.isToLook) {
      this.isToLook = false;
      // what is on its way is answered with what others changed
      await this.saver.settled();
      if (this.isClosed) return;
      const { version } = this.saver;
      const r = await fetch(`${this.url}?since=${version}&measured=${this.measuredAt}`, { cache: "no-store" });
      if (!r.ok || this.isClosed) return;
      const answer = (await r.json()) as Answer & { measuring: Measuring };
      if (this.saver.isBusy || this.saver.version !== version) {
        this.isToLook = true;
        continue;
      }
      this.saver.goOn(answer.version!);
      this.follow(answer.theirs ?? {}, answer.by);
      this.measuredAt = answer.measuring.version;
      this.hearing.measured?.(answer.measuring);
    }
  }

  close(): void {
    this.isClosed = true;
    this.saver.close();
  }
}

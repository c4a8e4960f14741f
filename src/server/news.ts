import pg from "pg";
import { connectionString } from "./database";

/** What has changed, as the database tells it: "handout:ID", "work:HANDOUT:PERSON:VERSION:WINDOW". */
type Hear = (topic: string) => void;

const FIRST_PAUSE_MS = 250;
const LONGEST_PAUSE_MS = 5_000;
/** A connection that nobody needs is kept for so long: the next page may come. */
const REST_MS = 10_000;

/**
 * One connection of the process listens for all its pages. Lost, it is made again, and every page is told to look: what
 * happened meanwhile was not heard.
 */
class News {
  private readonly hearers = new Set<Hear>();
  private client: pg.Client | undefined;
  private pause = FIRST_PAUSE_MS;

  listen(hear: Hear): () => void {
    this.hearers.add(hear);
    if (!this.client) this.open();
    return () => {
      this.hearers.delete(hear);
      if (!this.hearers.size) setTimeout(() => this.rest(), REST_MS).unref();
    };
  }

  /** Nobody listens: the connection is given back. */
  private rest(): void {
    if (this.hearers.size || !this.client) return;
    const { client } = this;
    this.client = undefined;
    void client.end().catch(() => {});
  }

  private open(): void {
    const client = (this.client = new pg.Client({ connectionString: connectionString(), keepAlive: true }));
    const lost = () => {
      if (this.client !== client) return;
      this.client = undefined;
      void client.end().catch(() => {});
      setTimeout(() => !this.client && this.hearers.size && this.open(), this.pause).unref();
      this.pause = Math.min(2 * this.pause, LONGEST_PAUSE_MS);
    };
    client.on("error", lost).on("end", lost);
    client.on("notification", ({ payload }) => payload && this.say(payload));
    client
      .connect()
      .then(() => client.query("listen caliper"))
      .then(() => {
        this.pause = FIRST_PAUSE_MS;
        this.say(LOOK);
      })
      .catch(lost);
  }

  private say(topic: string): void {
    for (const hear of this.hearers) hear(topic);
  }
}

/** Something may have been missed: look at everything. */
export const LOOK = "look";

/** The one of this process; development reloads must not open another. */
export function news(): News {
  const shared = globalThis as { caliperNews?: News };
  return (shared.caliperNews ??= new News());
}

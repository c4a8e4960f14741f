import { checksNow, queueNow, tableSizes, workersNow } from "@/server/upkeep/running";
import { roomNow } from "@/server/works/versions";
import { RunningPage } from "@/ui/running/running-page";
import { retry, stop } from "../running-actions";
import { administrating } from "../visitor";

export const dynamic = "force-dynamic";

export default async function Page() {
  const person = await administrating();
  const [queue, workers, checks, tables, room] = await Promise.all([
    queueNow(),
    workersNow(),
    checksNow(),
    tableSizes(),
    roomNow(),
  ]);
  return (
    <RunningPage
      person={person}
      now={new Date().toISOString()}
      queue={queue.map((q) => ({ ...q, oldest: q.oldest?.toISOString() ?? null }))}
      workers={workers.map((w) => ({
        ...w,
        seen_at: w.seen_at.toISOString(),
        held_since: w.held_since?.toISOString() ?? null,
      }))}
      checks={checks.map((c) => ({ ...c, since: c.since.toISOString() }))}
      tables={tables}
      room={room}
      stop={stop}
      retry={retry}
    />
  );
}

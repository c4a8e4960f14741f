import { closeDatabase, transaction } from "@/server/database";
import { dropUnshown } from "@/server/upkeep/removal";

/** Takes the demo course away with its people and all that is theirs; nothing else is touched. */
await transaction(async (client) => {
  await client.query("select allow_deleting()");
  await client.query("delete from courses where demo");
  await client.query("delete from people where demo");
  await dropUnshown(client);
});
await closeDatabase();

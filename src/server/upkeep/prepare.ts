// Run before the servers start: the settings are checked and the database brought up to date.
import { environment } from "../environment";
import { migrate, TooNew } from "./migrate";

try {
  environment();
  await migrate();
} catch (e) {
  if (!(e instanceof Error)) throw e;
  console.error(
    e instanceof TooNew || !("severity" in e) ? e.message : `The database cannot be made ready: ${e.message}`,
  );
  process.exitCode = 1;
}

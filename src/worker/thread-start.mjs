// Worker threads do not inherit the TypeScript loader: register it, then start the thread proper.
import { register } from "tsx/esm/api";

register();
await import("./thread.ts");

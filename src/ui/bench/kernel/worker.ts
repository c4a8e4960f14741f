import { Kernel } from "@/core/kernel/opencascade";
import type { FromWorker, ToWorker } from "./messages";
import { Workshop } from "./workshop";

const opening = Kernel.open({ locateFile: () => "/kernel/kernel-1.1.0.wasm" });
const send = (m: FromWorker, transfer: Transferable[] = []) =>
  (self as unknown as { postMessage(m: unknown, t: Transferable[]): void }).postMessage(m, transfer);
void opening.then(() => send({ ready: true }));

/** Lets messages in: a later change overtakes this one. */
const breathe = () =>
  new Promise<void>((go) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => (port1.close(), go());
    port2.postMessage(0);
  });

const workshop = new Workshop(opening, send, breathe);
self.addEventListener("message", (event: MessageEvent<ToWorker>) => void workshop.hear(event.data));

import { Kernel } from "@/core/kernel/opencascade";
import { kernelGiven, type KernelGiven } from "../../parts/kernel-module";
import type { FromWorker, ToWorker } from "./messages";
import { Workshop } from "./workshop";

const opening = kernelGiven().then((source) => Kernel.open(source));
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
self.addEventListener("message", ({ data }: MessageEvent<ToWorker | KernelGiven>) => {
  if (!("kernel" in data)) void workshop.hear(data);
});

import { Kernel } from "@/core/kernel/opencascade";
import { kernelGiven, type KernelGiven } from "../parts/kernel-module";
import { DrawingBoard } from "./drawing-board";
import type { FromBoard, ToBoard } from "./messages";

const opening = kernelGiven()
  .then((source) => Kernel.open(source))
  .then((kernel) => new DrawingBoard(kernel));
const send = (m: FromBoard) => (self as unknown as { postMessage(m: unknown): void }).postMessage(m);

// one after the other: a question is about the Sheet as it was drawn last
let work: Promise<unknown> = Promise.resolve();
self.addEventListener("message", ({ data }: MessageEvent<ToBoard | KernelGiven>) => {
  if ("kernel" in data) return;
  const { id, question } = data;
  work = work
    .then(async () => {
      const board = await opening;
      send({ id, answer: board.answer(question, (done, of) => send({ id, done, of })) });
    })
    .catch((e: unknown) => send({ id, failed: e instanceof Error ? e.message : String(e) }));
});

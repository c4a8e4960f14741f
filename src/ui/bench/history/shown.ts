import { densityOf } from "@/core/part/document";
import { diagnosisOf, type BenchStore } from "../store";

/** How a version looked: what the history shows of it. */
export interface Shown {
  readonly picture?: string;
  readonly numbers: {
    readonly steps: number;
    readonly volume?: number;
    readonly mass?: number;
    readonly loose: number;
    readonly sketches: number;
    readonly defined: number;
  };
}

const WIDTH = 192;
const HEIGHT = 128;

/** What the model's canvas shows now. */
const canvasOf = () => document.querySelector<HTMLCanvasElement>("[aria-label=Model] canvas") ?? undefined;
export const pictureNow = (): string | undefined => canvasOf()?.toDataURL("image/png");

/** The same, small: cut to its middle. */
function smallPicture(): string | undefined {
  const from = canvasOf();
  if (!from?.width || !from.height) return undefined;
  const small = document.createElement("canvas");
  [small.width, small.height] = [WIDTH, HEIGHT];
  const scale = Math.max(WIDTH / from.width, HEIGHT / from.height);
  const [w, h] = [from.width * scale, from.height * scale];
  small.getContext("2d")?.drawImage(from, (WIDTH - w) / 2, (HEIGHT - h) / 2, w, h);
  const data = small.toDataURL("image/webp", 0.7);
  return data.length < 60_000 && data.startsWith("data:image/") ? data : undefined;
}

/** Picture and numbers of the part as it stands; numbers of the body only where it is built. */
export function shownNow(store: BenchStore): Shown {
  const { history, built, building } = store.getState(),
    { present } = history;
  const volume = building ? undefined : built?.properties?.volume;
  const freedoms = present.steps.flatMap((s) =>
    s.kind === "sketch" && s.sketch.curves.length ? [diagnosisOf(s.sketch, present.units)?.freedoms] : [],
  );
  const loose = freedoms.reduce<number>((n, f) => n + (f ?? 0), 0);
  const picture = smallPicture();
  return {
    ...(picture && { picture }),
    numbers: {
      steps: present.steps.length,
      loose,
      sketches: freedoms.length,
      defined: freedoms.filter((f) => f === 0).length,
      ...(volume !== undefined && { volume, mass: volume * densityOf(present.material) }),
    },
  };
}

const REST_MS = 6_000;

/** Tells the server now and then how the newest version looks. @returns ends it */
export function rememberLooks(store: BenchStore, url: string): () => void {
  let told = -1,
    timer: ReturnType<typeof setTimeout> | undefined;
  const look = () => {
    timer = undefined;
    const { saved, building, saver, mode } = store.getState();
    if (saved.kind !== "saved" || building || saver.version === told) return;
    told = saver.version;
    const { picture, numbers } = shownNow(store);
    // a sketch seen straight on is no picture of the part
    const body = JSON.stringify({ version: told, ...(mode.kind === "solid" && picture && { picture }), numbers });
    // only a picture: one that gets lost is no harm
    fetch(url, { method: "POST", headers: { "content-type": "application/json" }, body }).catch(() => {});
  };
  const stop = store.subscribe(() => (timer ??= setTimeout(look, REST_MS)));
  return () => {
    stop();
    clearTimeout(timer);
  };
}

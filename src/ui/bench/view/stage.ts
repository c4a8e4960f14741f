import * as THREE from "three";

/** What drawing in space costs to set up: a canvas with its context, and materials whose shaders are compiled. */
interface Stage {
  readonly canvas: HTMLCanvasElement;
  readonly renderer: THREE.WebGLRenderer;
  /** Materials that are used again and again: thrown away, their shaders would be compiled anew for each picture. */
  readonly kept: Map<string, THREE.Material>;
}

/** About as large as a view on a laptop, pixels. */
const WARM_SIZE = [640, 560] as const;

/** One stands by in a tab, so that the next view has it at once. */
let spare: Stage | undefined;

function made(): Stage {
  const canvas = document.createElement("canvas");
  canvas.className = "absolute inset-0 h-full w-full";
  const renderer = new THREE.WebGLRenderer({ canvas, antialias: true, alpha: true, preserveDrawingBuffer: true });
  renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2));
  return { canvas, renderer, kept: new Map() };
}

const isLost = (s: Stage) => s.renderer.getContext().isContextLost();

/** The stage that stands by, or a new one. Throws where the browser gives no WebGL. */
export function takeStage(): Stage {
  const stage = spare;
  spare = undefined;
  if (stage && !isLost(stage)) return stage;
  if (stage) end(stage);
  return made();
}

/** Gives a stage back when its view is gone: one is kept, others end. */
export function giveStage(stage: Stage): void {
  stage.canvas.remove();
  stage.renderer.localClippingEnabled = false;
  if (spare || isLost(stage)) end(stage);
  else spare = stage;
}

/** Sets one up before anything is looked at; where that cannot be, the view will say so. */
export function warmStage(): void {
  if (spare) return;
  try {
    spare = made();
    const { renderer, kept } = spare;
    const face = new THREE.MeshLambertMaterial();
    const edge = new THREE.LineBasicMaterial();
    kept.set("warm face", face).set("warm edge", edge);
    const scene = new THREE.Scene();
    const shape = new THREE.BoxGeometry();
    scene.add(new THREE.AmbientLight(), new THREE.DirectionalLight());
    scene.add(new THREE.Mesh(shape, face), new THREE.LineSegments(new THREE.EdgesGeometry(shape), edge));
    // the first picture is what takes long: shaders are compiled for it
    renderer.setSize(...WARM_SIZE, false);
    renderer.render(scene, new THREE.OrthographicCamera());
    shape.dispose();
  } catch {
    spare = undefined;
  }
}

function end({ renderer, kept }: Stage): void {
  for (const m of kept.values()) m.dispose();
  renderer.dispose();
}

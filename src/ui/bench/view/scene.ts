import * as THREE from "three";
import type { Mesh } from "@/core/kernel/mesh";
import type { Vec3 } from "@/core/geometry/vector";
import type { Camera } from "./camera";

export interface Layer {
  readonly mesh: Mesh;
  readonly style: "model" | "faded" | "missing" | "extra" | "ghost";
  /** Only what lies behind this plane is drawn: a point on it and the direction towards the viewer. */
  readonly cut?: { readonly at: Vec3; readonly normal: Vec3 };
}

const colour = (name: string) => new THREE.Color(getComputedStyle(document.documentElement).getPropertyValue(name).trim() || "#888888");

/** Bands of colour for missing and extra material, so that they are told apart by hatch too. */
function hatched(base: string, direction: number): THREE.Material {
  const material = new THREE.MeshLambertMaterial({ color: colour(base), side: THREE.DoubleSide, polygonOffset: true, polygonOffsetFactor: -1, polygonOffsetUnits: -1 });
  material.onBeforeCompile = (shader) => {
    shader.fragmentShader = shader.fragmentShader.replace("#include <dithering_fragment>", `#include <dithering_fragment>\nif (mod(gl_FragCoord.x + ${direction.toFixed(1)} * gl_FragCoord.y, 11.0) < 4.0) gl_FragColor.rgb = mix(gl_FragColor.rgb, vec3(1.0), 0.72);`);
  };
  material.customProgramCacheKey = () => `${base}${direction}`;
  return material;
}

/** Draws layers of facets and edges with three.js; redraws only when something changed. */
export class Scene {
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  private readonly eye = new THREE.OrthographicCamera();
  private readonly group = new THREE.Group();
  private readonly light = new THREE.DirectionalLight(0xffffff, 2.1);
  private frame = 0;
  private readonly leave: () => void;

  constructor(canvas: HTMLCanvasElement, private readonly camera: Camera) {
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: true, alpha: true });
    this.renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2));
    this.scene.add(this.group, new THREE.AmbientLight(0xffffff, 1.35), this.light);
    this.leave = camera.subscribe(() => this.redraw());
  }

  show(layers: readonly Layer[]): void {
    this.clear();
    this.renderer.localClippingEnabled = layers.some((l) => l.cut);
    for (const { mesh, style, cut } of layers) {
      const g = new THREE.BufferGeometry();
      g.setAttribute("position", new THREE.BufferAttribute(mesh.positions, 3));
      g.setAttribute("normal", new THREE.BufferAttribute(mesh.normals, 3));
      g.setIndex(new THREE.BufferAttribute(mesh.triangles, 1));
      const see = style === "faded" ? 0.28 : style === "ghost" ? 0.16 : 1;
      const material =
        style === "missing" ? hatched("--color-accent", 1) : style === "extra" ? hatched("--color-primary", -1)
        : new THREE.MeshLambertMaterial({ color: colour("--model"), transparent: see < 1, opacity: see, depthWrite: see === 1, polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 });
      // a hair of slack, so that a face in the plane itself still shows
      const planes = cut ? [new THREE.Plane().setFromNormalAndCoplanarPoint(new THREE.Vector3(...cut.normal).negate(), new THREE.Vector3(...cut.at).addScaledVector(new THREE.Vector3(...cut.normal), 1e-3))] : [];
      material.clippingPlanes = planes;
      if (cut) material.side = THREE.DoubleSide;
      this.group.add(new THREE.Mesh(g, material));
      const points: number[] = [];
      for (const e of mesh.edges) for (let i = 0; i + 5 < e.length; i += 3) points.push(...e.subarray(i, i + 6));
      const lines = new THREE.BufferGeometry();
      lines.setAttribute("position", new THREE.Float32BufferAttribute(points, 3));
      this.group.add(new THREE.LineSegments(lines, new THREE.LineBasicMaterial({ color: colour("--model-edge"), transparent: see < 1, opacity: see < 1 ? 0.4 : 1, clippingPlanes: planes })));
    }
    this.redraw();
  }

  private clear(): void {
    for (const child of [...this.group.children]) {
      this.group.remove(child);
      (child as THREE.Mesh).geometry.dispose();
      ((child as THREE.Mesh).material as THREE.Material).dispose();
    }
  }

  redraw(): void {
    cancelAnimationFrame(this.frame);
    this.frame = requestAnimationFrame(() => {
      const { target, toViewer, right, up, scale, width, height } = this.camera;
      const box = new THREE.Box3().setFromObject(this.group);
      const reach = box.isEmpty() ? 1000 : box.getSize(new THREE.Vector3()).length() + box.getCenter(new THREE.Vector3()).distanceTo(new THREE.Vector3(...target)) + 10;
      this.eye.left = -width / 2 / scale;
      this.eye.right = width / 2 / scale;
      this.eye.top = height / 2 / scale;
      this.eye.bottom = -height / 2 / scale;
      this.eye.near = 0;
      this.eye.far = 2 * reach;
      const m = new THREE.Matrix4().makeBasis(new THREE.Vector3(...right), new THREE.Vector3(...up), new THREE.Vector3(...toViewer));
      this.eye.quaternion.setFromRotationMatrix(m);
      this.eye.position.set(...target).addScaledVector(new THREE.Vector3(...toViewer), reach);
      this.eye.updateProjectionMatrix();
      // light from over the viewer's left shoulder, wherever the viewer stands
      this.light.position.copy(this.eye.position).addScaledVector(new THREE.Vector3(...up), reach * 0.7).addScaledVector(new THREE.Vector3(...right), -reach * 0.45);
      this.light.target.position.set(...target);
      this.light.target.updateMatrixWorld();
      this.renderer.setSize(width, height, false);
      this.renderer.render(this.scene, this.eye);
    });
  }

  close(): void {
    cancelAnimationFrame(this.frame);
    this.leave();
    this.clear();
    this.renderer.dispose();
  }
}

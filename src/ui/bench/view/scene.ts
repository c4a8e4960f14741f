import { UNSEEN } from "../tolerance";
import * as THREE from "three";
import type { Mesh } from "@/core/kernel/mesh";
import type { Vec3 } from "@/core/geometry/vector";
import type { Camera } from "./camera";
import { cutOutline } from "./cut-outline";
import { giveStage, takeStage } from "./stage";
import { deviationMaterial, type DeviationBands } from "./deviation-material";

export interface Layer {
  readonly mesh: Mesh;
  readonly style: "model" | "faded" | "missing" | "extra" | "ghost" | "lines";
  /** Of lines alone: what they are drawn in; dashed where they are another part's. */
  readonly ink?: string;
  readonly dashed?: boolean;
  /** Only what lies behind this plane is drawn: a point on it and the direction towards the viewer. */
  readonly cut?: { readonly at: Vec3; readonly normal: Vec3 };
  /** The cut face is shown hatched. */
  readonly hatch?: boolean;
  readonly look?: { readonly faces: "both" | "faces" | "visible" | "all"; readonly tangent: "shown" | "thin" | "off" };
  /** Places of faces that are not drawn. */
  readonly hidden?: ReadonlySet<number>;
  readonly colours?: { readonly body?: string; readonly faces: ReadonlyMap<number, string> };
  /** The same surface in small facets, coloured by how far each place lies off; its edges are the mesh's. */
  readonly deviation?: DeviationLayer;
}

interface DeviationLayer {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly triangles: Uint32Array;
  readonly distances: Float32Array;
  readonly bands: DeviationBands;
}

const colour = (name: string) =>
  new THREE.Color(getComputedStyle(document.documentElement).getPropertyValue(name).trim() || "#888888");

/** A hair of slack, so that a face in the plane itself still shows. */
const clippingPlane = ({ at, normal }: NonNullable<Layer["cut"]>): THREE.Plane =>
  new THREE.Plane().setFromNormalAndCoplanarPoint(
    new THREE.Vector3(...normal).negate(),
    new THREE.Vector3(...at).addScaledVector(new THREE.Vector3(...normal), UNSEEN),
  );

/** How faces of a layer are painted. @param see how much of what lies behind is hidden, 0 to 1 */
function faceMaterial(style: Layer["style"], isFlat: boolean, ink: THREE.Color, see: number): THREE.Material {
  const isOver = style === "missing" || style === "extra";
  const m = isOver
    ? hatched(style === "missing" ? "--color-accent" : "--color-primary", style === "missing" ? 1 : -1)
    : plainFace(isFlat, ink, see);
  m.polygonOffset = true;
  m.polygonOffsetFactor = m.polygonOffsetUnits = isOver ? -1 : 1;
  return m;
}
const plainFace = (isFlat: boolean, color: THREE.Color, opacity: number): THREE.Material =>
  isFlat
    ? new THREE.MeshBasicMaterial({ color })
    : new THREE.MeshLambertMaterial({ color, transparent: opacity < 1, opacity, depthWrite: opacity === 1 });

/** Bands of colour for missing and extra material, so that they are told apart by hatch too. */
function hatched(base: string, direction: number): THREE.Material {
  const material = new THREE.MeshLambertMaterial({
    color: colour(base),
    side: THREE.DoubleSide,
    polygonOffset: true,
    polygonOffsetFactor: -1,
    polygonOffsetUnits: -1,
  });
  material.onBeforeCompile = (shader) => {
    shader.fragmentShader = shader.fragmentShader.replace(
      "#include <dithering_fragment>",
      `#include <dithering_fragment>
       if (mod(gl_FragCoord.x + ${direction.toFixed(1)} * gl_FragCoord.y, 11.0) < 4.0)
         gl_FragColor.rgb = mix(gl_FragColor.rgb, vec3(1.0), 0.72);`,
    );
  };
  material.customProgramCacheKey = () => `${base}${direction}`;
  return material;
}

/** The cut face: flat, with the standard's hatch at 45° in the screen. */
function cutFace(planes: THREE.Plane[]): THREE.Material {
  const material = new THREE.MeshBasicMaterial({
      color: colour("--color-base-100"),
      side: THREE.BackSide,
      clippingPlanes: planes,
    }),
    ink = colour("--model-edge");
  material.onBeforeCompile = (shader) => {
    shader.fragmentShader = shader.fragmentShader.replace(
      "#include <dithering_fragment>",
      `#include <dithering_fragment>
       if (mod(gl_FragCoord.x - gl_FragCoord.y, 9.0) < 1.3)
         gl_FragColor.rgb = vec3(${[ink.r, ink.g, ink.b].map((part) => part.toFixed(3)).join()});`,
    );
  };
  material.customProgramCacheKey = () => "cut-face";
  return material;
}

/** Draws layers of facets and edges with three.js; redraws only when something changed. */
export class Scene {
  private readonly stage = takeStage();
  private readonly renderer = this.stage.renderer;
  private readonly kept = this.stage.kept;
  /** How large the picture was drawn last: setting a size makes it anew, though it be the same. */
  private size: readonly [number, number] = [0, 0];
  private readonly scene = new THREE.Scene();
  private readonly flat = new THREE.OrthographicCamera();
  private readonly deep = new THREE.PerspectiveCamera();
  private readonly group = new THREE.Group();
  private readonly light = new THREE.DirectionalLight(0xffffff, 2.1);
  private frame = 0;
  private readonly leave: () => void;

  constructor(
    place: HTMLElement,
    private readonly camera: Camera,
  ) {
    place.prepend(this.stage.canvas);
    this.scene.add(this.group, new THREE.AmbientLight(0xffffff, 1.35), this.light);
    this.leave = camera.subscribe(() => this.redraw());
  }

  show(layers: readonly Layer[]): void {
    this.clear();
    this.renderer.localClippingEnabled = layers.some((l) => l.cut);
    for (const layer of layers) this.add(layer);
    this.redraw();
  }

  /** A material that is made once; one with a plane that cuts is of its own. */
  private material<M extends THREE.Material>(key: string, planes: readonly THREE.Plane[], make: () => M): M {
    if (planes.length) {
      const own = make();
      own.clippingPlanes = [...planes];
      return own;
    }
    const known = this.kept.get(key) as M | undefined;
    if (known) return known;
    const made = make();
    this.kept.set(key, made);
    return made;
  }

  private addDeviation({ positions, normals, triangles, distances, bands }: DeviationLayer): void {
    const g = new THREE.BufferGeometry();
    g.setAttribute("position", new THREE.BufferAttribute(positions, 3));
    g.setAttribute("normal", new THREE.BufferAttribute(normals, 3));
    g.setAttribute("deviation", new THREE.BufferAttribute(distances, 1));
    g.setIndex(new THREE.BufferAttribute(triangles, 1));
    const inks = { plain: colour("--model"), over: colour("--color-primary"), under: colour("--color-accent") };
    this.group.add(new THREE.Mesh(g, deviationMaterial(bands, inks)));
  }

  /** Edges alone, and where it is cut the outline of the cut. */
  private addLines({ mesh, cut, ink = "--model-edge", dashed }: Layer): void {
    const points: number[] = [];
    if (cut) points.push(...cutOutline(mesh, cut));
    else
      mesh.edges.forEach((e, k) => {
        if (mesh.smooth[k]) return;
        for (let i = 0; i + 5 < e.length; i += 3) points.push(...e.subarray(i, i + 6));
      });
    const lines = new THREE.BufferGeometry();
    lines.setAttribute("position", new THREE.Float32BufferAttribute(points, 3));
    const painted = colour(ink);
    const settings = { color: painted, depthTest: false };
    const size = new THREE.Box3().setFromBufferAttribute(new THREE.BufferAttribute(mesh.positions, 3));
    const dash = size.getSize(new THREE.Vector3()).length() / 90;
    const key = `lines ${painted.getHexString()} ${dashed ? dash.toPrecision(2) : ""}`;
    const material = this.material(key, [], () =>
      dashed
        ? new THREE.LineDashedMaterial({ ...settings, dashSize: dash, gapSize: dash * 0.7 })
        : new THREE.LineBasicMaterial(settings),
    );
    const drawn = new THREE.LineSegments(lines, material);
    if (dashed) drawn.computeLineDistances();
    drawn.renderOrder = 2;
    this.group.add(drawn);
  }

  private add(layer: Layer): void {
    if (layer.style === "lines") return this.addLines(layer);
    const { mesh, style, cut, hatch, look, hidden, colours, deviation } = layer;
    if (deviation) this.addDeviation(deviation);
    const see = style === "faded" ? 0.28 : style === "ghost" ? 0.16 : 1,
      faces = look?.faces ?? "both";
    const planes = cut ? [clippingPlane(cut)] : [];
    if (faces !== "all" && !deviation) {
      const g = new THREE.BufferGeometry();
      g.setAttribute("position", new THREE.BufferAttribute(mesh.positions, 3));
      g.setAttribute("normal", new THREE.BufferAttribute(mesh.normals, 3));
      g.setIndex(new THREE.BufferAttribute(mesh.triangles, 1));
      // one material a colour; faces of a colour are groups of the one geometry
      const plain = faces === "visible" ? "--color-base-100" : (colours?.body ?? "--model"),
        inks = [plain, ...new Set(colours?.faces.values() ?? [])];
      const materials = inks.map((ink) => {
        const painted = ink.startsWith("#") ? new THREE.Color(ink) : colour(ink);
        const key = `face ${style} ${faces === "visible"} ${painted.getHexString()} ${see}`;
        const m = this.material(key, planes, () => faceMaterial(style, faces === "visible", painted, see));
        if (cut && !hatch) m.side = THREE.DoubleSide;
        return m;
      });
      mesh.faces.forEach(
        (f, i) =>
          !hidden?.has(i) &&
          g.addGroup(
            f.start,
            f.count,
            faces === "visible" ? 0 : Math.max(0, inks.indexOf(colours?.faces.get(i) ?? plain)),
          ),
      );
      this.group.add(new THREE.Mesh(g, materials));
      if (cut && hatch) {
        const outline = new THREE.BufferGeometry();
        outline.setAttribute("position", new THREE.Float32BufferAttribute(cutOutline(mesh, cut, hidden), 3));
        this.group.add(new THREE.LineSegments(outline, new THREE.LineBasicMaterial({ color: colour("--model-edge") })));
        // through the cut one sees the insides of faces: drawn flat and hatched they look like the cut face itself
        const inside = cutFace(planes);
        this.group.add(
          new THREE.Mesh(
            g,
            materials.map(() => inside),
          ),
        );
      }
    }
    if (faces === "faces") return;
    const line = (smooth: boolean) => {
      const points: number[] = [];
      mesh.edges.forEach((e, k) => {
        if ((mesh.smooth[k] ?? false) !== smooth || hidden?.has(mesh.owners[k]!)) return;
        for (let i = 0; i + 5 < e.length; i += 3) points.push(...e.subarray(i, i + 6));
      });
      const thin = smooth && (look?.tangent ?? "thin") === "thin",
        lines = new THREE.BufferGeometry();
      lines.setAttribute("position", new THREE.Float32BufferAttribute(points, 3));
      const clear = see < 1 || thin;
      const opacity = see < 1 ? 0.4 : thin ? 0.3 : 1,
        ink = colour("--model-edge");
      const material = this.material(
        `edge ${ink.getHexString()} ${opacity}`,
        planes,
        () => new THREE.LineBasicMaterial({ color: ink, transparent: clear, opacity }),
      );
      this.group.add(new THREE.LineSegments(lines, material));
    };
    line(false);
    if (look?.tangent !== "off") line(true);
  }

  private clear(): void {
    for (const child of [...this.group.children]) {
      this.group.remove(child);
      (child as THREE.Mesh).geometry.dispose();
      const kept = new Set(this.kept.values());
      for (const m of [(child as THREE.Mesh).material].flat()) if (!kept.has(m)) m.dispose();
    }
  }

  redraw(): void {
    cancelAnimationFrame(this.frame);
    this.frame = requestAnimationFrame(() => {
      const { target, toViewer, right, up, scale, width, height } = this.camera;
      const box = new THREE.Box3().setFromObject(this.group);
      const reach = box.isEmpty()
        ? 1000
        : box.getSize(new THREE.Vector3()).length() +
          box.getCenter(new THREE.Vector3()).distanceTo(new THREE.Vector3(...target)) +
          10;
      const eye = this.camera.perspective ? this.deep : this.flat,
        away = this.camera.perspective ? this.camera.eyeDistance : reach;
      if (eye === this.deep) {
        this.deep.fov = (2 * Math.atan(height / 2 / scale / away) * 180) / Math.PI;
        this.deep.aspect = width / height;
        this.deep.near = away / 100;
        this.deep.far = away + 2 * reach;
      } else {
        this.flat.left = -width / 2 / scale;
        this.flat.right = width / 2 / scale;
        this.flat.top = height / 2 / scale;
        this.flat.bottom = -height / 2 / scale;
        this.flat.near = 0;
        this.flat.far = 2 * reach;
      }
      const m = new THREE.Matrix4().makeBasis(
        new THREE.Vector3(...right),
        new THREE.Vector3(...up),
        new THREE.Vector3(...toViewer),
      );
      eye.quaternion.setFromRotationMatrix(m);
      eye.position.set(...target).addScaledVector(new THREE.Vector3(...toViewer), away);
      eye.updateProjectionMatrix();
      // light from over the viewer's left shoulder, wherever the viewer stands
      this.light.position
        .copy(eye.position)
        .addScaledVector(new THREE.Vector3(...up), reach * 0.7)
        .addScaledVector(new THREE.Vector3(...right), -reach * 0.45);
      this.light.target.position.set(...target);
      this.light.target.updateMatrixWorld();
      if (this.size[0] !== width || this.size[1] !== height) {
        this.size = [width, height];
        this.renderer.setSize(width, height, false);
      }
      this.renderer.render(this.scene, eye);
    });
  }

  close(): void {
    cancelAnimationFrame(this.frame);
    this.leave();
    this.clear();
    giveStage(this.stage);
  }
}

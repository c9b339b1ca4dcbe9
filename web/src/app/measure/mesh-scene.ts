import {
  AmbientLight,
  Box3,
  BufferAttribute,
  BufferGeometry,
  Color,
  DirectionalLight,
  DoubleSide,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshStandardMaterial,
  PerspectiveCamera,
  Plane,
  Points,
  PointsMaterial,
  Raycaster,
  Scene,
  Sphere,
  Vector2,
  Vector3,
  WebGLRenderer,
} from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { MeshBVH, acceleratedRaycast } from 'three-mesh-bvh';
import type { DrawnMesh } from './mesh-told';

export interface Picked {
  readonly point: readonly [number, number, number];
  readonly triangle: number;
}

export interface SceneInk {
  readonly part: string;
  readonly line: string;
  readonly mark: string;
}

/** A scan on the screen: turned with the mouse or the arrow keys, cut by a plane, and asked for points. Draws only when something changed. */
export class MeshScene {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new PerspectiveCamera(35, 1, 0.01, 100);
  private readonly controls: OrbitControls;
  private readonly sun = new DirectionalLight('#ffffff', 2.2);
  private part: Mesh<BufferGeometry, MeshStandardMaterial> | null = null;
  private cut: LineSegments<BufferGeometry, LineBasicMaterial> | null = null;
  private marks: Points<BufferGeometry, PointsMaterial> | null = null;
  private centre = new Vector3();
  private size = 1;
  private frame = 0;

  constructor(
    private readonly host: HTMLElement,
    private ink: SceneInk,
  ) {
    this.renderer = new WebGLRenderer({ antialias: true, alpha: true });
    this.renderer.setPixelRatio(Math.min(2, devicePixelRatio));
    this.renderer.localClippingEnabled = true;
    host.append(this.renderer.domElement);
    this.scene.add(new AmbientLight('#ffffff', 1.1), this.sun);
    this.controls = new OrbitControls(this.camera, this.renderer.domElement);
    this.controls.addEventListener('change', () => this.draw());
    this.resize();
  }

  resize(): void {
    const { clientWidth: width, clientHeight: height } = this.host;
    if (width === 0 || height === 0) return;
    this.renderer.setSize(width, height);
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  colours(ink: SceneInk): void {
    this.ink = ink;
    this.part?.material.color.set(this.part.material.vertexColors ? '#ffffff' : ink.part);
    this.cut?.material.color.set(ink.line);
    this.marks?.material.color.set(ink.mark);
    this.draw();
  }

  show({ positions, triangles }: DrawnMesh): void {
    this.clear();
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(positions, 3));
    geometry.setIndex(new BufferAttribute(triangles, 1));
    const flat = geometry.toNonIndexed();
    flat.computeVertexNormals();
    this.part = new Mesh(flat, new MeshStandardMaterial({ color: this.ink.part, roughness: 0.75, metalness: 0.1, side: DoubleSide }));
    flat.boundsTree = new MeshBVH(flat, { indirect: true });
    this.part.raycast = acceleratedRaycast;
    this.scene.add(this.part);
    const sphere = new Box3().setFromBufferAttribute(geometry.getAttribute('position') as BufferAttribute).getBoundingSphere(new Sphere());
    this.centre = sphere.center;
    this.size = sphere.radius || 1;
    this.camera.near = this.size / 100;
    this.camera.far = this.size * 100;
    this.look();
  }

  /** From the front, a little above and from the right. */
  look(): void {
    this.controls.target.copy(this.centre);
    this.camera.up.set(0, 0, 1);
    this.camera.position
      .copy(this.centre)
      .add(new Vector3(1.1, -1.6, 0.9).normalize().multiplyScalar((this.size * 3.6) / Math.min(1, this.camera.aspect)));
    this.camera.updateProjectionMatrix();
    this.controls.update();
    this.draw();
  }

  /** Turns the view by so many rad, for those who use no mouse. */
  turn(sideways: number, up: number): void {
    const offset = this.camera.position.clone().sub(this.controls.target);
    offset.applyAxisAngle(new Vector3(0, 0, 1), sideways);
    const right = new Vector3().crossVectors(new Vector3(0, 0, 1), offset).normalize();
    const lifted = offset.clone().applyAxisAngle(right, -up);
    if (Math.abs(lifted.clone().normalize().z) < 0.99) offset.copy(lifted);
    this.camera.position.copy(this.controls.target).add(offset);
    this.controls.update();
    this.draw();
  }

  zoom(factor: number): void {
    this.camera.position.sub(this.controls.target).multiplyScalar(factor).add(this.controls.target);
    this.controls.update();
    this.draw();
  }

  /** Hides what lies above the plane, and draws the lines of the cut. Null shows all. */
  section(plane: { readonly normal: readonly number[]; readonly offset: number } | null, lines: Float32Array): void {
    if (this.part) {
      const [x, y, z] = plane?.normal ?? [0, 0, 0];
      this.part.material.clippingPlanes = plane ? [new Plane(new Vector3(-x!, -y!, -z!), plane.offset)] : null;
      this.part.material.needsUpdate = true;
    }
    this.cut?.removeFromParent();
    this.cut?.geometry.dispose();
    this.cut = null;
    if (lines.length > 0) {
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', new BufferAttribute(lines, 3));
      this.cut = new LineSegments(geometry, new LineBasicMaterial({ color: this.ink.line, depthTest: false }));
      this.scene.add(this.cut);
    }
    this.draw();
  }

  /** Points that were picked. */
  mark(points: readonly (readonly number[])[]): void {
    this.marks?.removeFromParent();
    this.marks?.geometry.dispose();
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(Float32Array.from(points.flat()), 3));
    this.marks = new Points(geometry, new PointsMaterial({ color: this.ink.mark, size: 9, sizeAttenuation: false, depthTest: false }));
    this.scene.add(this.marks);
    this.draw();
  }

  /** Colours each vertex, [vertex × 3], 0…1; null takes the colours off. */
  paint(triangles: Uint32Array, colours: Float32Array | null): void {
    if (!this.part) return;
    const { geometry, material } = this.part;
    if (colours) {
      const spread = new Float32Array(3 * triangles.length);
      triangles.forEach((vertex, at) => spread.set(colours.subarray(3 * vertex, 3 * vertex + 3), 3 * at));
      geometry.setAttribute('color', new BufferAttribute(spread, 3));
    } else geometry.deleteAttribute('color');
    material.vertexColors = colours !== null;
    material.color = new Color(colours ? '#ffffff' : this.ink.part);
    material.needsUpdate = true;
    this.draw();
  }

  /** What lies under a place of the window. */
  pick(clientX: number, clientY: number): Picked | null {
    if (!this.part) return null;
    const box = this.renderer.domElement.getBoundingClientRect();
    const at = new Vector2(((clientX - box.left) / box.width) * 2 - 1, 1 - ((clientY - box.top) / box.height) * 2);
    const ray = new Raycaster();
    ray.setFromCamera(at, this.camera);
    const planes = this.part.material.clippingPlanes ?? [];
    const hit = ray.intersectObject(this.part).find(({ point }) => planes.every((plane) => plane.distanceToPoint(point) >= 0));
    return hit ? { point: hit.point.toArray(), triangle: hit.faceIndex ?? 0 } : null;
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    this.clear();
    this.controls.dispose();
    this.renderer.dispose();
    this.renderer.domElement.remove();
  }

  private clear(): void {
    for (const shown of [this.part, this.cut, this.marks]) {
      shown?.removeFromParent();
      shown?.geometry.dispose();
      shown?.material.dispose();
    }
    [this.part, this.cut, this.marks] = [null, null, null];
  }

  private draw(): void {
    cancelAnimationFrame(this.frame);
    this.frame = requestAnimationFrame(() => {
      this.sun.position.copy(this.camera.position).add(new Vector3(0, 0, this.size));
      this.renderer.render(this.scene, this.camera);
    });
  }
}

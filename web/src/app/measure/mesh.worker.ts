/// <reference lib="webworker" />
import { measureMesh, readMesh, scaled, slice, wallThickness, type Mesh } from '@each-bolt/core/measure';
import { registerMesh } from './register-mesh';
import type { MeshAsked, MeshTold, Numbered } from './mesh-told';

let open: Mesh | null = null;
/** the question that is being answered */
let number = 0;

const tell = (what: MeshTold, moved: Transferable[] = []): void => postMessage({ number, what } satisfies Numbered<MeshTold>, moved);
const NOTHING_OPEN: MeshTold = { kind: 'fault', message: 'No scan is open' };

const answer = (asked: MeshAsked): void => {
  switch (asked.kind) {
    case 'measure': {
      tell({ kind: 'step', step: 'reading' });
      const read = readMesh(new Uint8Array(asked.bytes), asked.fileName);
      if (!read.ok) {
        tell({ kind: 'fault', message: read.message });
        return;
      }
      open = read.mesh;
      const measured = measureMesh(read.mesh, asked.shareFraction, (step) => tell({ kind: 'step', step }));
      const positions = Float32Array.from(read.mesh.positions);
      const triangles = read.mesh.triangles.slice();
      tell(
        { kind: 'measured', file: { ...measured, positions, triangles, format: read.format, notes: [...read.notes, ...measured.notes] } },
        [positions.buffer, triangles.buffer],
      );
      return;
    }
    case 'slice': {
      if (!open) {
        tell(NOTHING_OPEN);
        return;
      }
      const { loops, open: lines, right, up } = slice(open, asked.plane);
      tell({ kind: 'sliced', loops, openLines: lines.length, right, up });
      return;
    }
    case 'wall':
      tell(open ? { kind: 'wall', wall: wallThickness(open, asked.triangle, asked.from) } : NOTHING_OPEN);
      return;
    case 'register': {
      if (!open) {
        tell(NOTHING_OPEN);
        return;
      }
      tell({ kind: 'step', step: 'registering' });
      const read = readMesh(new Uint8Array(asked.bytes), asked.fileName);
      if (!read.ok) {
        tell({ kind: 'fault', message: read.message });
        return;
      }
      const compared = registerMesh(open, scaled(read.mesh, asked.scale));
      const { deviation, registered, triangles } = compared;
      tell(
        { kind: 'compared', compared },
        [deviation, registered, triangles].map((numbers) => numbers.buffer as ArrayBuffer),
      );
    }
  }
};

addEventListener('message', ({ data }: MessageEvent<Numbered<MeshAsked>>) => {
  number = data.number;
  try {
    answer(data.what);
  } catch (fault) {
    tell({ kind: 'fault', message: `The scan could not be measured: ${(fault as Error).message}. Nothing was kept` });
  }
});

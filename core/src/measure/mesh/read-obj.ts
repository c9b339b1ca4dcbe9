import type { Mesh } from './mesh';
import { addFan } from './polygon-fan';
import { MeshFault, checkTriangles } from './read-result';
import { joinedVertices } from './joined-vertices';

/** Reads the vertices and faces of an OBJ file; materials, normals and groups mean nothing to the measuring. @throws MeshFault */
export const readObj = (text: string): Mesh => {
  const positions: number[] = [];
  const triangles: number[] = [];
  let line = 0;
  for (const raw of linesOf(text)) {
    line++;
    const words = raw.trim().split(/\s+/);
    if (words[0] === 'v') {
      for (let i = 1; i <= 3; i++) positions.push(coordinate(words[i], line));
    } else if (words[0] === 'f') {
      if (words.length < 4) throw new MeshFault(`line ${line}: a face needs three corners or more`);
      addFan(
        words.slice(1).map((word) => cornerOf(word, positions.length / 3, line)),
        triangles,
      );
    }
  }
  checkTriangles(triangles.length / 3);
  return joinedVertices(Float64Array.from(positions), Uint32Array.from(triangles));
};

/** Lines of a text, those that end in a backslash joined with the next, without a list of all of them. */
function* linesOf(text: string): Generator<string> {
  for (let at = 0; at < text.length;) {
    const end = text.indexOf('\n', at);
    const stop = end < 0 ? text.length : end;
    yield text.slice(at, stop);
    at = stop + 1;
  }
}

const coordinate = (word: string | undefined, line: number): number => {
  const value = Number(word ?? Number.NaN);
  if (!Number.isFinite(value))
    throw new MeshFault(`line ${line}: “${(word ?? 'nothing').slice(0, 40)}” stands where a coordinate should stand`);
  return value;
};

/** "7", "7/2/5" and "-1", which counts back from the last vertex before the face. */
const cornerOf = (word: string, vertices: number, line: number): number => {
  const number = Number(word.split('/')[0]);
  const place = number < 0 ? vertices + number : number - 1;
  if (!(Number.isInteger(place) && place >= 0 && place < vertices))
    throw new MeshFault(`line ${line}: the face names vertex ${word.slice(0, 40)}, and ${vertices} have been given before it`);
  return place;
};

import type { Mesh } from './mesh';
import { addPolygon } from './polygon-triangles';
import { MeshFault, checkTriangles } from './read-result';
import { joinedVertices } from './joined-vertices';

/** Reads the vertices and faces of an OBJ file; materials, normals and groups mean nothing to the measuring. @throws MeshFault */
export const readObj = (text: string): Mesh => {
  const positions: number[] = [];
  const triangles: number[] = [];
  let line = 0;
  for (const { raw, number } of linesOf(text)) {
    line = number;
    const words = raw.trim().split(/\s+/);
    if (words[0] === 'v') {
      for (let i = 1; i <= 3; i++) positions.push(coordinate(words[i], line));
    } else if (words[0] === 'f') {
      if (words.length < 4) throw new MeshFault(`line ${line}: a face needs three corners or more`);
      addPolygon(
        words.slice(1).map((word) => cornerOf(word, positions.length / 3, line)),
        (corner) => [positions[3 * corner]!, positions[3 * corner + 1]!, positions[3 * corner + 2]!],
        triangles,
      );
      checkTriangles(triangles.length / 3);
    }
  }
  checkTriangles(triangles.length / 3);
  return joinedVertices(Float64Array.from(positions), Uint32Array.from(triangles));
};

/** Lines of a text, those that end in a backslash joined with the next, without a list of all of them; each with the number of its last line. */
function* linesOf(text: string): Generator<{ readonly raw: string; readonly number: number }> {
  let begun = '';
  let number = 0;
  for (let at = 0; at < text.length;) {
    const end = text.indexOf('\n', at);
    const stop = end < 0 ? text.length : end;
    const line = begun + text.slice(at, stop);
    number += 1;
    at = stop + 1;
    const goesOn = /\\\r?$/.exec(line);
    begun = goesOn ? `${line.slice(0, goesOn.index)} ` : '';
    if (!goesOn) yield { raw: line, number };
  }
  if (begun !== '') yield { raw: begun, number };
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

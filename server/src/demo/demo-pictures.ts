import sharp from 'sharp';
import { blank, type Op, type Part } from '@each-bolt/core/record';
import { readPicture } from '../files/picture';
import type { StoredFile } from '../files/queries';

const [WIDTH, HEIGHT, MARGIN] = [640, 480, 40];

interface DrawnBox {
  readonly svg: string;
  readonly top: readonly [number, number];
  readonly side: readonly [number, number];
}

/** A part from above and from the side, to scale, with the parts inside as bars of their length: plainly a schematic. */
const schematic = (part: Part, inside: readonly Part[]): DrawnBox => {
  const [long, wide, high] = [part.lengthM ?? 0, part.widthM ?? 0, part.heightM ?? 0];
  if (long === 0) throw new RangeError(`demo: “${part.tag}” has no envelope to be drawn from`);
  const scale = Math.min((WIDTH - 2 * MARGIN) / long, (HEIGHT - 3 * MARGIN) / (wide + high));
  const [w, top, side] = [long * scale, wide * scale, Math.max(high * scale, 8)];
  const x = (WIDTH - w) / 2;
  const rect = (left: number, up: number, width: number, height: number, fill: string): string =>
    `<rect x="${left.toFixed(1)}" y="${up.toFixed(1)}" width="${width.toFixed(1)}" height="${height.toFixed(1)}" rx="3" fill="${fill}" stroke="#3c4a52" stroke-width="2"/>`;
  const sized = inside.filter(({ lengthM, widthM }) => lengthM !== null && widthM !== null);
  const boxes = sized.flatMap((p, i) => {
    const width = Math.min(w - 16, p.lengthM! * scale);
    const each = (top - 16) / sized.length;
    return [rect(x + 8 + ((i * 37) % Math.max(1, w - 16 - width)), MARGIN + 8 + i * each, width, Math.max(2, each - 3), '#c9d3d6')];
  });
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}"><rect width="100%" height="100%" fill="#f6f4ee"/>${rect(x, MARGIN, w, top, '#e6e9e6')}${boxes.join('')}${rect(x, 2 * MARGIN + top, w, side, '#d7dcd9')}</svg>`;
  return { svg, top: [0.5, (MARGIN - 16) / HEIGHT], side: [0.5, (2 * MARGIN + top - 14) / HEIGHT] };
};

/** Pictures of parts, drawn by script from what is recorded of them. */
export const demoPictures = async (
  parts: readonly Part[],
  tags: readonly string[],
  newId: () => string,
): Promise<readonly { readonly file: StoredFile; readonly op: Op }[]> =>
  Promise.all(
    tags.map(async (tag) => {
      const part = parts.find((p) => p.tag === tag);
      if (!part) throw new RangeError(`demo: nothing has the tag “${tag}”`);
      const drawn = schematic(
        part,
        parts.filter(({ parentId }) => parentId === part.id),
      );
      const file = await readPicture(await sharp(Buffer.from(drawn.svg)).png().toBuffer());
      const word = ([x, y]: readonly [number, number], text: string) => ({
        kind: 'text' as const,
        fromX: x,
        fromY: y,
        toX: x,
        toY: y,
        text,
      });
      const fields = {
        ...blank('picture', { partId: part.id, sha256: file.sha256, widthPx: file.widthPx!, heightPx: file.heightPx! }),
        shows: 'schematic, drawn from the recorded envelope and what is inside',
        marks: [word(drawn.top, 'from above'), word(drawn.side, 'from the side')],
      };
      return { file, op: { kind: 'picture.add', id: newId(), fields } as Op };
    }),
  );

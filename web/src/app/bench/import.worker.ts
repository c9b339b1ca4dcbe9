/// <reference lib="webworker" />
import { TableReader } from '@each-bolt/core/bench';
import type { ImportAsked, ImportTold } from './import-reader';

const reader = new TableReader();
const tell = (told: ImportTold): void => postMessage(told);

addEventListener('message', ({ data }: MessageEvent<ImportAsked>) => {
  if (data.kind === 'open') void reader.open(data.bytes, data.encoding).then((table) => tell({ kind: 'open', id: data.id, told: table }));
  else if (data.kind === 'head') tell({ kind: 'head', id: data.id, told: reader.head(data.sheet, data.headingRow) });
  else
    tell({
      kind: 'read',
      id: data.id,
      told: reader.read(data.sheet, data.options, (share) => tell({ kind: 'progress', id: data.id, told: share })),
    });
});

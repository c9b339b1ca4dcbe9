/// <reference lib="webworker" />
import { TableReader } from '@each-bolt/core/bench';
import type { ImportAsked, ImportTold } from './import-reader';

const reader = new TableReader();
const tell = (told: ImportTold): void => postMessage(told);

const answer = async (asked: ImportAsked): Promise<ImportTold> => {
  const { id } = asked;
  if (asked.kind === 'open') return { kind: 'open', id, told: await reader.open(asked.bytes, asked.encoding) };
  if (asked.kind === 'head') return { kind: 'head', id, told: reader.head(asked.sheet, asked.headingRow) };
  return { kind: 'read', id, told: reader.read(asked.sheet, asked.options, (share) => tell({ kind: 'progress', id, told: share })) };
};

addEventListener('message', ({ data }: MessageEvent<ImportAsked>) => {
  answer(data).then(tell, (fault: unknown) =>
    tell({ kind: 'failed', id: data.id, told: fault instanceof Error ? fault.message : String(fault) }),
  );
});

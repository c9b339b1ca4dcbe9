/// <reference lib="webworker" />
import { materialById } from '@each-bolt/core/shared';
import { figuresOf, type SectionAsked } from './section-text';

addEventListener('message', ({ data }: MessageEvent<SectionAsked>) => {
  postMessage(figuresOf(data, materialById.get(data.materialId ?? '') ?? null));
});

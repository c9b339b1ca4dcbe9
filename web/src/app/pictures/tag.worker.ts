/// <reference lib="webworker" />
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';

// the reader’s program ships with the application
prepareZXingModule({ overrides: { locateFile: (name: string) => new URL(`/${name}`, self.location.origin).href } });

addEventListener('message', ({ data: picture }: MessageEvent<Blob>) => {
  readBarcodes(picture, { formats: ['DataMatrix'], tryHarder: true, maxNumberOfSymbols: 1 })
    .then((found) => postMessage(found.find(({ isValid }) => isValid)?.text ?? null))
    // a picture that cannot be drawn has no tag; the record refuses it in its own words
    .catch(() => postMessage(null));
});

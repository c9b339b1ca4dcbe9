import { makeTagWorker } from './make-tag-worker';

/** A picture is looked through for so long, ms. */
const LONGEST_MS = 8000;

/** The text of the Data Matrix in one of several pictures, looked for beside the page; null where none is read. */
export const tagInPictures = async (pictures: readonly Blob[]): Promise<string | null> => {
  for (const picture of pictures) {
    const worker = makeTagWorker();
    const text = await new Promise<string | null>((told) => {
      const late = setTimeout(() => told(null), LONGEST_MS);
      worker.onmessage = ({ data }: MessageEvent<string | null>) => {
        clearTimeout(late);
        told(data);
      };
      worker.onerror = () => {
        clearTimeout(late);
        told(null);
      };
      worker.postMessage(picture);
    });
    worker.terminate();
    if (text !== null) return text;
  }
  return null;
};

import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Response } from 'express';
import { codeOf } from './problem';

/** Whoever takes less than this, again and again over a stretch of time, is cut off. */
interface Pace {
  readonly leastBytesPerS: number;
  readonly overS: number;
}

/** A slow mobile network is several times as fast. */
const SLOWEST: Pace = { leastBytesPerS: 16 * 1024, overS: 60 };

/** Whoever asked has gone, before the answer or while it was sent. */
const GONE = ['ERR_STREAM_PREMATURE_CLOSE', 'ERR_STREAM_UNABLE_TO_PIPE', 'ERR_STREAM_DESTROYED', 'ECONNRESET', 'EPIPE'];

/** Sends what a stream gives at the pace of the reader, holding no more than a stretch of it; a reader who all but stops is cut off. */
export const sendSteadily = async (response: Response, source: Readable, { leastBytesPerS, overS }: Pace = SLOWEST): Promise<void> => {
  const { socket } = response;
  const taken = (): number => (socket ? socket.bytesWritten - socket.writableLength : 0);
  let before = taken();
  const watch = setInterval(() => {
    const now = taken();
    if (now - before < leastBytesPerS * overS) response.destroy();
    before = now;
  }, overS * 1000);
  try {
    await pipeline(source, response);
  } catch (error) {
    // nobody is there to be told
    if (!GONE.includes(codeOf(error))) throw error;
  } finally {
    clearInterval(watch);
  }
};

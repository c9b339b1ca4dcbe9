/// <reference lib="webworker" />
import { toldOf, type PackAsked } from './pack-told';

addEventListener('message', ({ data }: MessageEvent<PackAsked>) => postMessage(toldOf(data)));

/// <reference lib="webworker" />
import { toldOf, type CheckingAsked } from './checking-told';

addEventListener('message', ({ data }: MessageEvent<CheckingAsked>) => postMessage(toldOf(data)));

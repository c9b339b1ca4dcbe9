import { deserialize, serialize } from 'node:v8';
import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv({ errorOnUnknownElements: true, errorOnUnknownProperties: true });

class SilentObserver {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}
// the browser has it, jsdom does not; the stand-in for IndexedDB copies with it
globalThis.structuredClone ??= <T>(value: T): T => deserialize(serialize(value)) as T;
// so does every browser, but for jsdom
Blob.prototype.arrayBuffer ??= function (this: Blob): Promise<ArrayBuffer> {
  return new Promise((done, failed) => {
    const reader = new FileReader();
    reader.onload = () => done(new Uint8Array(reader.result as ArrayBuffer).slice().buffer);
    reader.onerror = () => failed(reader.error ?? new Error('not read'));
    reader.readAsArrayBuffer(this);
  });
};
const view = globalThis as unknown as Record<string, unknown>;
view['ResizeObserver'] = SilentObserver;
view['matchMedia'] = () => ({
  matches: false,
  addEventListener: () => undefined,
  removeEventListener: () => undefined,
  addListener: () => undefined,
  removeListener: () => undefined,
});
HTMLCanvasElement.prototype.getContext = (() => null) as never;

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

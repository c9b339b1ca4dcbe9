import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv({ errorOnUnknownElements: true, errorOnUnknownProperties: true });

class SilentObserver {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}
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

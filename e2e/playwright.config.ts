import { defineConfig } from '@playwright/test';
import { stateOf } from './sign-in';

const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: '../test-results',
  globalSetup: './sign-in.ts',
  fullyParallel: true,
  workers: 2,
  retries: 0,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  reporter: [['list']],
  use: {
    baseURL: process.env.BASE_URL ?? 'http://127.0.0.1:4600',
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    serviceWorkers: 'block',
    // what fades is waited for by nobody who asked for little motion
    contextOptions: { reducedMotion: 'reduce' },
    storageState: stateOf('wenna'),
    // recording every step makes the tests half as fast; TRACE=1 asks for it
    trace: process.env.TRACE === '1' ? 'retain-on-failure' : 'off',
    launchOptions: { executablePath: '/usr/bin/chromium', args: CHROMIUM_FLAGS },
  },
});

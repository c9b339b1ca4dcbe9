import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = dirname(fileURLToPath(import.meta.url));
const { createCjsPreset } = createRequire(join(root, 'web/package.json'))('jest-preset-angular/presets');

const CORE = {
  '^@each-bolt/core/(.*)$': join(root, 'core/src/$1/index.ts'),
  // the builds of them that Jest can read
  '^three$': join(root, 'node_modules/three/build/three.core.js'),
  '^delaunator$': join(root, 'node_modules/delaunator/delaunator.js'),
  '^nanoid$': join(root, 'node_modules/nanoid/index.cjs'),
  '^d3-random$': join(root, 'node_modules/d3-random/dist/d3-random.js'),
  '^d3-array$': join(root, 'node_modules/d3-array/dist/d3-array.js'),
};
const node = (name) => ({
  displayName: name,
  rootDir: join(root, name),
  testEnvironment: 'node',
  setupFiles: [join(root, 'core/testing/seed.ts')],
  testMatch: ['**/*.test.ts'],
  moduleNameMapper: CORE,
  transform: {
    '^.+\\.ts$': ['ts-jest', { tsconfig: { ...COMPILE, types: ['jest', 'node'] } }],
    // an independent program that some tests are held against; it comes as modules only
    'node_modules/cdigit/.+\\.js$': ['ts-jest', { tsconfig: { ...COMPILE, allowJs: true } }],
    // the hull of the drawing library, and the cutting of polygons, which come as modules only too
    'node_modules/(three|earcut)/.+\\.js$': ['ts-jest', { tsconfig: { ...COMPILE, allowJs: true } }],
  },
  transformIgnorePatterns: ['node_modules/(?!cdigit/|three/|earcut/)'],
});
const COMPILE = {
  target: 'ES2022',
  module: 'CommonJS',
  moduleResolution: 'node10',
  lib: ['ES2023'],
  esModuleInterop: true,
  strict: true,
  skipLibCheck: true,
  isolatedModules: true,
};

export default {
  // a busy machine is slow, not wrong
  testTimeout: 120_000,
  projects: [
    node('core'),
    {
      ...node('server'),
      globalSetup: join(root, 'server/testing/start-postgres.mjs'),
      globalTeardown: join(root, 'server/testing/stop-postgres.mjs'),
    },
    node('scripts'),
    {
      displayName: 'web',
      rootDir: join(root, 'web'),
      ...createCjsPreset({
        tsconfig: join(root, 'web/tsconfig.json'),
        processWithEsbuild: ['**/node_modules/{echarts,zrender,three,earcut}/**/*.js'],
      }),
      testMatch: ['**/*.test.ts'],
      moduleNameMapper: { ...CORE, '/make-(mesh-|section-|import-)?worker$': join(root, 'web/testing/make-worker.ts') },
      transformIgnorePatterns: ['node_modules/(?!(?:.*\\.mjs$|(?:echarts|zrender|three|earcut)/))'],
      setupFilesAfterEnv: [join(root, 'web/testing/setup.ts')],
    },
  ],
};

// The unit tests of one stage of core, for `npm run mutation`.
import config from '../jest.config.mjs';

const core = config.projects.find((project) => project.displayName === 'core');
const stage = (process.env.MUTATION_STAGE ?? 'core/src').replace(/^core\//, '');
export default { testTimeout: config.testTimeout, ...core, testMatch: [`<rootDir>/${stage}/**/*.test.ts`] };

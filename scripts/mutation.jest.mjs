// The unit tests of core alone, for `npm run mutation`.
import config from '../jest.config.mjs';

const core = config.projects.find((project) => project.displayName === 'core');
export default { testTimeout: config.testTimeout, ...core };

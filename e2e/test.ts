import { test as base } from '@playwright/test';

/** The tests of the interface: one fails when anything in the page failed without being told. */
export const test = base.extend<{ readonly faults: undefined }>({
  faults: [
    async ({ page }, use) => {
      const faults: string[] = [];
      page.on('pageerror', (fault) => faults.push(fault.stack ?? fault.message));
      await use(undefined);
      if (faults.length > 0) throw new Error(`The page failed: ${faults.join('\n')}`);
    },
    { auto: true },
  ],
});

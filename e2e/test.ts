import { test as base } from '@playwright/test';

/** The tests of the interface: one fails when anything in the page failed without being told. */
export const test = base.extend<{ readonly firstSteps: boolean; readonly faults: undefined }>({
  /** whether the person sees the path of a first study; who has left it once sees it no more */
  firstSteps: [false, { option: true }],
  faults: [
    async ({ page, firstSteps }, use) => {
      if (!firstSteps) await page.addInitScript(() => localStorage.setItem('each-bolt-first-steps-left', 'left'));
      const faults: string[] = [];
      page.on('pageerror', (fault) => faults.push(fault.stack ?? fault.message));
      await use(undefined);
      if (faults.length > 0) throw new Error(`The page failed: ${faults.join('\n')}`);
    },
    { auto: true },
  ],
});

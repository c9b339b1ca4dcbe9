import { test as base, type Page } from '@playwright/test';

/** What a page failed at, for whoever reads of a test that failed: errors of the page, answers it was refused, what it still waits for. */
const told = (page: Page): (() => readonly string[]) => {
  const lines: string[] = [];
  const asked = new Set<string>();
  page.on('console', (message) => {
    if (message.type() === 'error') lines.push(`console: ${message.text()}`);
  });
  page.on('request', (request) => asked.add(request.url()));
  page.on('requestfinished', (request) => asked.delete(request.url()));
  page.on('requestfailed', (request) => {
    asked.delete(request.url());
    lines.push(`failed: ${request.url()} ${request.failure()?.errorText ?? ''}`);
  });
  page.on('response', (response) => {
    if (response.status() >= 400) lines.push(`answered ${response.status()}: ${response.url()}`);
  });
  return () => [...lines.slice(-12), ...[...asked].slice(0, 12).map((url) => `waits for: ${url}`)];
};

/** The tests of the interface: one fails when anything in the page failed without being told. */
export const test = base.extend<{ readonly firstSteps: boolean; readonly faults: undefined }>({
  /** whether the person sees the path of a first study; who has left it once sees it no more */
  firstSteps: [false, { option: true }],
  faults: [
    async ({ page, firstSteps }, use, info) => {
      if (!firstSteps) await page.addInitScript(() => localStorage.setItem('each-bolt-first-steps-left', 'left'));
      const faults: string[] = [];
      const happened = told(page);
      page.on('pageerror', (fault) => faults.push(fault.stack ?? fault.message));
      await use(undefined);
      if (info.status !== info.expectedStatus) {
        const shown = await page.locator('body').innerText({ timeout: 2000 }).catch(() => 'nothing'); // prettier-ignore
        const lines = [`Shown: ${shown.replace(/\s+/g, ' ').slice(0, 300)}`, ...happened(), ...faults];
        process.stdout.write(`${info.title}\n${lines.map((line) => `  ${line}\n`).join('')}`);
      }
      if (faults.length > 0) throw new Error(`The page failed: ${faults.join('\n')}`);
    },
    { auto: true },
  ],
});

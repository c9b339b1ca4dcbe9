import { expect, type Locator } from '@playwright/test';

/** Chooses from a list that opens: the word as people read it, or the place in the list. */
export const choose = async (field: Locator, choice: string | number): Promise<void> => {
  const options = field.page().getByRole('option');
  const wanted =
    typeof choice === 'number' ? options.nth(choice) : options.and(field.page().getByRole('option', { name: choice, exact: true }));
  // a list closes when what is under it scrolls, which bringing its field into view may still do
  await expect(async () => {
    if ((await options.count()) === 0) await field.click();
    await expect(wanted).toBeVisible({ timeout: 2_000 });
  }).toPass();
  await wanted.click();
  // it has gone before another is opened
  await expect(wanted).toHaveCount(0);
};

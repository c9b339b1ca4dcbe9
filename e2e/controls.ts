import type { Locator } from '@playwright/test';

/** Chooses from a list that opens: the word as people read it, or the place in the list. */
export const choose = async (field: Locator, choice: string | number): Promise<void> => {
  await field.click();
  const options = field.page().getByRole('option');
  await (
    typeof choice === 'number' ? options.nth(choice) : options.and(field.page().getByRole('option', { name: choice, exact: true }))
  ).click();
};

import { expect, type Page } from '@playwright/test'

/** Waits until the verdict of the trial on the page holds for what the page shows. */
export const computed = (page: Page) =>
  expect(page.getByRole('region', { name: 'Verdict' })).toHaveAttribute('data-state', 'current', { timeout: 60_000 })

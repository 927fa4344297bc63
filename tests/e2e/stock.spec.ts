import { readFileSync } from 'node:fs'
import { computed } from './computed'
import { demoPart, expect, test } from './server'

test('filament and recipe on a card they do not fit: read why, mend, slice, export', async ({ page }) => {
  test.slow()
  await page.goto('/')
  await page.getByRole('link', { name: 'Cormorant' }).click()
  await page.getByRole('link', { name: 'Trials' }).click()
  await page.getByRole('button', { name: 'Open a trial' }).click()
  await page
    .locator('[data-add-file]')
    .setInputFiles({ name: 'net-ring-joint.stl', mimeType: 'model/stl', buffer: readFileSync(demoPart('net-ring-joint')) })
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')
  await page.getByRole('combobox', { name: 'Recipe' }).selectOption({ label: 'Station, any machine, in rungs' })
  await page.getByRole('combobox', { name: 'Filament' }).selectOption({ label: 'Station PETG, grey' })
  const match = page.getByRole('region', { name: 'Match' })
  await expect(match).toContainText('does not fit')
  await expect(match).toContainText('This bed ends at 71 °C; the filament asks for 75 °C. The print would never start.')

  // a copy of the filament, with a bed that this machine reaches
  await page.getByRole('region', { name: 'Filament' }).getByRole('button', { name: 'copy' }).click()
  await expect(page.getByRole('combobox', { name: 'Filament' })).toContainText('Station PETG, grey, copy')
  await page.getByRole('region', { name: 'Filament' }).getByRole('button', { name: 'Filament' }).click()
  await page.getByLabel("first layer's bed temperature").fill('65')
  await page.getByLabel('bed temperature', { exact: true }).fill('60')
  await expect(match).not.toContainText('does not fit')

  await computed(page)
  await expect(page.locator('.figures')).toContainText('min')
  const [program] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Save the G-code' }).click()])
  expect(program.suggestedFilename()).toContain('Station PETG, grey, copy')
  expect(readFileSync(await program.path(), 'utf8')).toContain('; card: Cormorant')
  const [bed] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Bed as 3MF' }).click()])
  expect(
    readFileSync(await bed.path())
      .subarray(0, 2)
      .toString(),
  ).toBe('PK')

  await page.getByRole('button', { name: 'every setting, and where it comes from' }).click()
  await page.getByLabel('Find a setting, a value, a part').fill('line width')
  await expect(page.getByRole('row', { name: /^line width \d/ })).toContainText('nozzle')
  await page.getByRole('button', { name: 'Close' }).click()

  await page.getByRole('combobox', { name: 'What if' }).selectOption('setting /walls')
  await expect(page.getByRole('row', { name: /^walls 2/ })).toContainText('min', { timeout: 60_000 })
  await expect(page.getByRole('row', { name: /^walls 4/ })).toContainText('+', { timeout: 60_000 })
})

test('a zone and a part of its own settings change what is laid', async ({ page }) => {
  test.slow()
  await page.goto('/')
  await page.getByRole('link', { name: 'Dunlin' }).click()
  await page.getByRole('link', { name: 'Trials' }).click()
  await page.getByRole('button', { name: 'Open a trial' }).click()
  await page
    .locator('[data-add-file]')
    .setInputFiles({ name: 'cable-gland.stl', mimeType: 'model/stl', buffer: readFileSync(demoPart('cable-gland')) })
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')
  await page.getByRole('button', { name: 'own settings' }).click()
  await page.getByLabel('cable gland: what differs').selectOption({ label: 'supports' })
  await page.getByLabel('cable gland, supports').selectOption('branching')
  await page.getByLabel('cable gland: what differs').selectOption({ label: 'brim' })
  await page.getByLabel('cable gland, brim').selectOption('outer')
  await page.getByRole('region', { name: 'Zones' }).getByRole('button', { name: 'box' }).click()
  await page.getByLabel('zone 1: what differs').selectOption({ label: 'infill' })
  await page.getByLabel('zone 1, infill').fill('80')
  await computed(page)
  await expect(page.locator('.figures')).toContainText('min')
  await expect(page.locator('.layer-paths .brim').first()).toBeAttached()
  await page.keyboard.press('Escape')
})

test('filaments and recipes stand against all cards, and a copy says what it left out', async ({ page }) => {
  await page.goto('/')
  await page.getByLabel('Goes with').selectOption({ label: 'Station ASA, white' })
  await expect(page.locator('.silhouette', { hasText: 'Dunlin' }).locator('.match')).toContainText('This bed ends at 92 °C')
  await page.getByRole('link', { name: 'Filaments and recipes' }).click()
  await page.getByRole('button', { name: 'Station night marker, glowing on Dunlin: does not fit' }).click()
  await expect(page.getByText('It wears brass, and this nozzle is as soft: it wants a hardened one.')).toBeVisible()
  await page.getByRole('link', { name: 'Station night marker, glowing' }).click()
  await expect(page.getByLabel('Departures from the head, retraction', { exact: true })).toHaveValue('1.2')
  await page.locator('.card-of', { hasText: 'Kittiwake' }).getByRole('button', { name: 'Copy for it' }).click()
  await expect(
    page
      .getByText('Its retraction: it suits the length of one machine’s feed.')
      .or(page.getByText("Its retraction: it suits the length of one machine's feed.")),
  ).toBeVisible()
  await page.getByRole('link', { name: 'The copy for Kittiwake' }).click()
  await expect(page.getByLabel('Departures from the head, retraction', { exact: true })).toHaveValue('')
  await page.getByLabel('Fan, by layer time: s share, …').fill('5 1, 4 0.2')
  await expect(page.getByText('Pairs of seconds and a share from 0 to 1, times rising')).toBeVisible()
  await page.getByLabel('Fan, by layer time: s share, …').fill('5 1, 20 0.2')
  await page.getByLabel('Flow, flow', { exact: true }).fill('96')
  await expect(page.locator('[data-save=saved]')).toBeVisible()
  await page.getByRole('link', { name: 'Filaments and recipes' }).click()
  await page.getByRole('link', { name: 'Station, any machine, in rungs' }).click()
  await page.getByLabel('Find a setting').fill('seam')
  await page.getByLabel('Walls and shells, seam').selectOption('back')
  await expect(page.locator('[data-save=saved]')).toBeVisible()
})

import type { Page } from '@playwright/test'
import { expect, test } from './server'

const field = (page: Page, label: string) => page.getByRole('region', { name: 'Schedule' }).getByLabel(label, { exact: true })

async function saved(page: Page) {
  await expect(page.locator('[data-save=saved]')).toBeVisible()
}

async function newCard(page: Page) {
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Dunlin' })).toBeVisible()
  await page.getByRole('button', { name: 'New card' }).waitFor()
  await page.keyboard.press('n')
  await page.getByRole('link', { name: 'Sheet' }).click()
  await expect(page.getByRole('region', { name: 'Schedule' })).toBeVisible()
}

test('the rack shows Dunlin beside an A4 outline', async ({ page }) => {
  await page.goto('/')
  const dunlin = page.getByRole('link', { name: 'Dunlin' })
  await expect(dunlin).toContainText('180 × 160 × 170')
  await expect(page.getByText('A4 sheet')).toBeVisible()
  // both to one scale: the silhouette is 180 mm wide where the A4 sheet is 210
  const width = (of: string) =>
    page
      .locator(`${of} .stand svg path`)
      .first()
      .evaluate((path) => (path as SVGGraphicsElement).getBBox().width)
  const [a4, bed] = [await width('.stand-in-scale'), await width('a[aria-label=Dunlin]')]
  expect(bed / a4).toBeCloseTo(180 / 210, 3)
  // its revision letter stands below it; a card without a revision is a draft
  await expect(page.locator('.silhouette', { hasText: 'Dunlin' }).locator('.counts')).toHaveText(/C\b/)
  await expect(page.locator('.silhouette', { hasText: 'Sanderling' }).locator('.counts')).toContainText('draft')
})

test('a card is filled from nothing, the drawing follows, and it survives a killed server', async ({ page, server }) => {
  await newCard(page)
  await expect(page.locator('[data-rule=missing-fact]').first()).toBeVisible()
  await field(page, 'name').fill('Redshank')
  await field(page, 'bed shape').selectOption('ellipse')
  await field(page, 'diameter').fill('7 in')
  await field(page, 'height').fill('212,7-2*11,1')
  await field(page, 'origin').selectOption('centre')
  await field(page, 'nozzle').fill('0.4')
  await field(page, 'filament').fill('1.75')
  await field(page, 'hot end rated to').fill('250')
  await field(page, 'bed heated').selectOption('true')
  await field(page, 'bed rated to').fill('90')
  await field(page, 'housing').selectOption('closed')
  await field(page, 'flavour').selectOption('reprapfirmware')
  await page.getByRole('region', { name: 'Envelope' }).getByRole('button', { name: 'add one' }).click()
  await page.getByLabel('obstacle 1 top above plate').fill('8')
  await expect(page.locator('[data-letter=A]')).toContainText('177.8')
  await expect(page.locator('[data-letter=B]')).toContainText('177.8')
  await expect(page.locator('[data-letter=C]')).toContainText('190.5')
  await expect(page.locator('[data-keep-out="obstacle 1"]')).toBeVisible()

  await page.getByRole('link', { name: 'Routines' }).click()
  await page.getByRole('textbox', { name: 'Start routine' }).fill('G28\nM190 S{{ heat.bed }}\nM109 S{{ heat.nozzle }}')
  await page.locator('[data-moment=end]').click()
  await page.getByRole('textbox', { name: 'End routine' }).fill('M104 S0\nM140 S0')
  await page.getByRole('link', { name: 'Sheet' }).click()
  await field(page, 'room').fill('17')
  await expect(page.locator('[data-save=waiting], [data-save=saving]')).toHaveCount(0)
  await server.kill()
  await server.start()
  await page.reload()
  await expect(field(page, 'room')).toHaveValue('17')
  await expect(field(page, 'diameter')).toHaveValue('177.8')
  await expect(page.locator('[data-rule=missing-fact]')).toHaveCount(0)
  await expect(page.locator('.finding.stop')).toHaveCount(0)
})

test('a bad value is refused at its field, what was typed stays, and the last good one stays drawn', async ({ page }) => {
  await newCard(page)
  await field(page, 'width').fill('180')
  await field(page, 'depth').fill('160')
  await field(page, 'width').fill('0')
  await expect(page.getByRole('alert')).toHaveText('Bed width must be above 0 and at most 2000 mm; 0 is not.')
  await expect(field(page, 'width')).toHaveValue('0')
  await expect(page.locator('[data-letter=A]')).toContainText('180')
  await field(page, 'height').fill('tall')
  await expect(page.getByText('"tall" is not a number.')).toBeVisible()
  await field(page, 'width').press('Escape')
  await expect(field(page, 'width')).toHaveValue('180')
  await expect(page.locator('[data-rule=missing-fact]').filter({ hasText: 'Height is missing' })).toBeVisible()
})

test('undo and redo go through the edits', async ({ page }) => {
  await newCard(page)
  await field(page, 'width').fill('180')
  await field(page, 'height').fill('170')
  await field(page, 'height').blur()
  await page.keyboard.press('Control+z')
  await expect(field(page, 'height')).toHaveValue('')
  await page.keyboard.press('Control+Shift+z')
  await expect(field(page, 'height')).toHaveValue('170')
})

test('what is typed while the server is away is saved once it is back', async ({ page, server }) => {
  await newCard(page)
  await field(page, 'name').fill('Greenshank')
  await saved(page)
  await server.kill()
  await field(page, 'maker')
    .isVisible()
    .catch(() => false)
  await field(page, 'width').fill('222')
  await expect(page.locator('[data-save=unreachable]')).toBeVisible()
  await server.start()
  await saved(page)
  await page.reload()
  await expect(field(page, 'width')).toHaveValue('222')
})

test('two pages that edit one card keep what both typed', async ({ page, context }) => {
  await newCard(page)
  await field(page, 'name').fill('Turnstone')
  await saved(page)
  const other = await context.newPage()
  await other.goto(page.url())
  await field(other, 'height').fill('150')
  await saved(other)
  await field(page, 'width').fill('140')
  await saved(page)
  await expect(field(page, 'height')).toHaveValue('150')
  await other.reload()
  await expect(field(other, 'width')).toHaveValue('140')
})

test('an unknown name in a routine is said with line and column', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Dunlin' }).click()
  await page.getByRole('link', { name: 'Routines' }).click()
  await page.locator('[data-moment=end]').click()
  await page.getByRole('textbox', { name: 'End routine' }).fill('M104 S0\nG1 Z{{ cleer.z }}')
  await expect(page.locator('[data-rule=broken-routine]')).toContainText('line 2, column 8: There is no cleer.z. Did you mean clear.z?')
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-rule=broken-routine]')).toHaveCount(0)
})

import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { clear, dropOn } from './page'
import { expect, test } from './server'
import { zipOf } from './zip'

const avocet = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a13'

/** A state of the second source, as a zip. */
function sourceZip(state: 'first' | 'second'): Buffer {
  const home = join(import.meta.dirname, '../pattern-source', state)
  const paths = readdirSync(home, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name))
  return zipOf(Object.fromEntries(paths.map((path) => [`works${path.slice(home.length)}`, readFileSync(path)])))
}

async function lookAt(page: Page, state: 'first' | 'second') {
  await page.goto('/')
  await expect(page.getByRole('list', { name: 'Cards' })).toContainText('Dunlin')
  await dropOn(page, `${state}.zip`, sourceZip(state))
  const others = page.getByRole('region', { name: 'Other files' })
  await expect(others.locator('[data-kind=patterns]')).toContainText('Saltmarsh Works')
  await others.getByRole('link', { name: 'look at it' }).click()
  return page.getByRole('region', { name: 'The source Saltmarsh Works' })
}

test('a source is dropped and its key pinned; a newer version is told, held three ways, and one change of it is taken', async ({
  page,
  request,
}) => {
  const first = await lookAt(page, 'first')
  await expect(first).toContainText('Its key will be pinned')
  await expect(first).toContainText('10ca17d4 83c1519e ee86750a 507a498a')
  await first.getByRole('button', { name: 'Pin this key and take it' }).click()
  await expect(page.getByRole('table', { name: 'Sources' })).toContainText('Saltmarsh Works')

  await page.goto('/')
  await page.getByRole('button', { name: 'Start a card from the pattern Reed' }).click()
  await page.locator('.ask').getByLabel('name of the machine').fill('Whinchat')
  await expect(page.locator('[data-save=saved]')).toBeVisible()
  await page.getByRole('link', { name: 'Sheet', exact: true }).click()
  await expect(page.locator('.schedule [data-pointer="/envelope/height"]')).toBeVisible()
  const sheet = page.url()
  await expect(page.getByRole('region', { name: 'Newer version of its pattern' })).toHaveCount(0)

  const second = await lookAt(page, 'second')
  await expect(second).toContainText('Newer than what is here')
  await expect(second).toContainText('1 → 2')
  await second.getByRole('button', { name: 'Take it' }).click()
  await expect(page.locator('[data-source=saltmarsh-works]')).toContainText('number 2')

  // side by side on the rack, the maker's dashed
  await page.goto('/')
  await expect(page.locator('.silhouette', { hasText: 'Whinchat' })).toContainText('version 2 of its pattern is there')
  await expect(page.locator('.silhouette', { hasText: 'Whinchat' }).locator('+ .makers')).toContainText('its maker’s, version 2')

  await page.goto(sheet)
  const news = page.getByRole('region', { name: 'Newer version of its pattern' })
  await expect(news).toContainText('lowered by 10 mm')
  await news.getByRole('link', { name: 'See what its maker changed' }).click()
  const height = page.locator('[data-difference="/envelope/height"]')
  await expect(height).toContainText('130 mm · assumed')
  await expect(height).toContainText('120 mm · assumed')
  await expect(height).toContainText('there')
  await expect(page.locator('[data-difference]')).toHaveCount(5)
  await height.getByRole('checkbox').check()
  await page.getByRole('button', { name: 'take over 1' }).click()
  // the height and the version are taken; three changes are left where they are
  await expect(page.locator('[data-difference]')).toHaveCount(3)
  await expect(page.locator('[data-save=saved]')).toBeVisible()
  const id = sheet.split('/').at(-1)!
  const read = async () =>
    ((await (await request.get(`/api/cards/${id}`)).json()) as { document: { pattern: unknown; envelope: { height: number } } }).document
  expect(await read()).toMatchObject({ pattern: { id: 'saltmarsh-works:reed', version: 2 }, envelope: { height: 120 } })
  await page.goto(sheet)
  await expect(page.locator('.schedule [data-pointer="/envelope/height"]')).toBeVisible()
  await expect(news).toHaveCount(0)

  await page.goto('/pattern-sources')
  const source = page.locator('[data-source=saltmarsh-works]')
  await source.getByRole('button', { name: 'forget' }).click()
  await source.getByRole('button', { name: 'forget it' }).click()
  await expect(source).toHaveCount(0)
  expect(await read()).toMatchObject({ envelope: { height: 120 } })
  await clear(request, 'cards', 'Whinchat')
})

test('a source that was changed since it was signed is refused where it is looked at', async ({ page }) => {
  const zip = zipOf({
    'works/patterns.json': readFileSync(join(import.meta.dirname, '../pattern-source/first/patterns.json'), 'utf8').replace(
      '"Reed"',
      '"Weed"',
    ),
    'works/patterns.sig': readFileSync(join(import.meta.dirname, '../pattern-source/first/patterns.sig')),
  })
  await page.goto('/')
  await expect(page.getByRole('list', { name: 'Cards' })).toContainText('Dunlin')
  await dropOn(page, 'works.zip', zip)
  await page.getByRole('link', { name: 'look at it' }).click()
  await expect(page.getByRole('alert')).toContainText('The signature does not hold')
  await expect(page.getByRole('button', { name: /take it/i })).toHaveCount(0)
  await page.getByLabel('Folder, zip or address of a source').fill('https://example.com/patterns')
  await page.getByRole('button', { name: 'Look at it' }).click()
  await expect(page.getByRole('alert')).toContainText('is not allowed')
})

test('a card of an older version of what ships is told so', async ({ page }) => {
  await page.goto(avocet)
  await expect(page.getByRole('region', { name: 'Newer version of its pattern' })).toContainText('Version 2')
  await page.getByRole('link', { name: 'Two carriages on one beam' }).click()
  await expect(page.getByRole('region', { name: 'Versions' })).toContainText('goes back to one carriage at a time')
})

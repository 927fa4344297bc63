import type { Page } from '@playwright/test'
import { expect, test } from './server'

interface Stored {
  id: string
  version: number
  document: {
    name?: string
    envelope: { height?: number; keepOuts: { id: string; name: string }[] }
    heat?: { room?: number }
    routines?: object
  }
}

const field = (page: Page, label: string) => page.getByRole('region', { name: 'Schedule' }).getByLabel(label, { exact: true })
const saved = (page: Page) => expect(page.locator('[data-save=saved]')).toBeVisible()

/** A card of its own, as another client sees it. */
async function cardOf(page: Page) {
  const example = (await (await page.request.get('/api/examples/card')).json()) as Stored['document']
  const made = (await (await page.request.post('/api/cards', { data: { ...example, name: 'Redshank' } })).json()) as Stored
  const read = async () => (await (await page.request.get(`/api/cards/${made.id}`)).json()) as Stored
  const change = async (edit: (document: Stored['document']) => Stored['document']) => {
    const now = await read()
    const answer = await page.request.put(`/api/cards/${made.id}`, {
      data: edit(now.document),
      headers: { 'if-match': `"${now.version}"` },
    })
    expect(answer.status()).toBe(200)
  }
  return { id: made.id, read, change }
}

test('two tabs add, remove and rename on one list, and nothing is lost', async ({ page, context }) => {
  const card = await cardOf(page)
  await page.goto(`/cards/${card.id}`)
  const other = await context.newPage()
  await other.goto(`/cards/${card.id}`)
  await expect(field(other, 'height')).toBeVisible()
  const before = (await card.read()).document.envelope.keepOuts

  await page.getByRole('region', { name: 'Envelope' }).getByRole('button', { name: 'add one' }).click()
  await other.getByRole('region', { name: 'Envelope' }).getByRole('button', { name: 'add one' }).click()
  await saved(page)
  await saved(other)
  const after = (await card.read()).document.envelope.keepOuts
  expect(after).toHaveLength(before.length + 2)
  expect(new Set(after.map(({ id }) => id)).size).toBe(after.length)

  // one tab removes the first, the other renames the last
  await card.change((document) => ({ ...document, envelope: { ...document.envelope, keepOuts: document.envelope.keepOuts.slice(1) } }))
  await other
    .getByLabel(`${after.at(-1)!.name} top above plate`)
    .last()
    .fill('9')
  await saved(other)
  const end = (await card.read()).document.envelope.keepOuts
  expect(end.map(({ id }) => id)).toEqual(after.slice(1).map(({ id }) => id))
  expect(end.filter((member) => 'top' in member && member.top === 9)).toHaveLength(1)
})

test('a value that was changed here and elsewhere is asked about, and undo leaves what others did', async ({ page }) => {
  const card = await cardOf(page)
  await page.goto(`/cards/${card.id}`)
  await expect(field(page, 'height')).toBeVisible()
  await card.change((document) => ({ ...document, name: 'Redshank II', envelope: { ...document.envelope, height: 150 } }))
  await field(page, 'height').fill('165')
  const notice = page.getByRole('region', { name: 'To decide' })
  await expect(notice).toContainText('height was changed here and elsewhere')
  await expect(notice.getByRole('button', { name: 'keep mine: 165 mm' })).toBeVisible()
  expect((await card.read()).document.envelope.height).toBe(150)
  // both stand side by side before somebody chooses
  await page.getByRole('link', { name: 'Redline' }).click()
  await page.getByLabel('Held against').selectOption({ label: 'as it is saved' })
  await expect(page.locator('[data-difference="/envelope/height"]')).toContainText('165 mm')
  await expect(page.locator('[data-difference="/envelope/height"]')).toContainText('150 mm')
  await expect(page.locator('[data-difference]')).toHaveCount(1)
  await page.getByRole('link', { name: 'Sheet', exact: true }).click()
  await notice.getByRole('button', { name: 'keep theirs: 150 mm' }).click()
  await expect(notice).toHaveCount(0)
  await expect(field(page, 'height')).toHaveValue('150')
  await expect(field(page, 'name')).toHaveValue('Redshank II')

  await field(page, 'name').fill('Redshank III')
  await saved(page)
  await card.change((document) => ({ ...document, envelope: { ...document.envelope, height: 140 } }))
  await field(page, 'room').fill('17')
  await saved(page)
  await expect(field(page, 'height')).toHaveValue('140')
  await page.getByRole('button', { name: 'undo' }).click()
  await saved(page)
  const { document } = await card.read()
  expect(document).toMatchObject({ name: 'Redshank III', envelope: { height: 140 } })
  expect(document.heat?.room).not.toBe(17)
})

test('a kept draft that does not hold is offered as a file, and the page opens all the same', async ({ page }) => {
  const card = await cardOf(page)
  const { document } = await card.read()
  const broken = { ...document, envelope: { ...document.envelope, height: 150, keepOuts: [{ id: 'x', name: 'half' }] } }
  await page.goto('/')
  await page.evaluate(
    ([key, text]) => localStorage.setItem(key!, text!),
    [`mill-card/unsaved/cards/${card.id}`, JSON.stringify({ base: document, document: broken })],
  )
  await page.goto(`/cards/${card.id}`)
  await expect(field(page, 'height')).toHaveValue(String(document.envelope.height))
  const notice = page.getByRole('region', { name: 'To decide' })
  await expect(notice).toContainText('They would have changed:')
  await expect(notice).toContainText('height')
  const [download] = await Promise.all([page.waitForEvent('download'), notice.getByRole('link', { name: 'save them as a file' }).click()])
  expect(download.suggestedFilename()).toContain(card.id)
  // value by value, what still holds of it can be taken over
  await page.getByRole('link', { name: 'Redline' }).click()
  await page.getByLabel('Held against').selectOption({ label: 'kept draft 1' })
  const height = page.locator('[data-difference="/envelope/height"]')
  await expect(height).toContainText('150 mm')
  await height.getByRole('checkbox').check()
  await page.getByRole('button', { name: 'take over 1' }).click()
  // the server is asked first whether it holds: until it is taken the draft stands as saved
  await expect(page.getByText(/taken over; undo takes that back/)).toBeVisible()
  await saved(page)
  expect((await card.read()).document.envelope.height).toBe(150)
  // what does not hold is not
  await page.locator('[data-difference]', { hasText: 'half' }).getByRole('checkbox').check()
  await page.getByRole('button', { name: 'take over 1' }).click()
  await expect(page.getByText(/^It is not taken: /)).toBeVisible()
  await page.getByRole('link', { name: 'Sheet', exact: true }).click()
  await expect(field(page, 'height')).toHaveValue('150')
  await notice.getByRole('button', { name: 'throw them away' }).click()
  await expect(notice).toHaveCount(0)
  await page.reload()
  await expect(field(page, 'height')).toBeVisible()
  await expect(notice).toHaveCount(0)
})

test('a routine that fails while it is written out is a stop in the margin, never nothing to say', async ({ page }) => {
  const card = await cardOf(page)
  await card.change((document) => ({ ...document, routines: { start: 'G28\n{{ 1 | divided_by: 0 }}\n', end: 'M104 S0' } }))
  await page.goto(`/cards/${card.id}/routines`)
  await expect(page.locator('[data-rule=broken-routine]')).toContainText('line 2, column 1: This divides by zero.')
  await expect(page.getByText('Nothing to say against this routine.')).toHaveCount(0)
  await page.goto(`/cards/${card.id}`)
  await expect(page.locator('[data-rule=broken-routine]')).toHaveCount(1)

  // a server that cannot look is not taken for one that found nothing
  await page.route('**/api/check**', (route) =>
    route.fulfill({ status: 503, json: { status: 503, detail: 'The database does not answer.' } }),
  )
  await field(page, 'height').fill('151')
  await expect(page.locator('[data-unlooked]')).toContainText('Could not be looked at')
  await page.unroute('**/api/check**')
  await field(page, 'height').fill('152')
  await expect(page.locator('[data-unlooked]')).toHaveCount(0)
  await saved(page)
})

test('the bin lists what was deleted, brings it back and clears it', async ({ page }) => {
  const card = await cardOf(page)
  await page.request.delete(`/api/cards/${card.id}`)
  await page.goto('/')
  await page.getByRole('link', { name: 'Bin' }).click()
  const row = page.getByRole('row').filter({ hasText: 'Redshank' }).first()
  await expect(row).toContainText('card')
  await row.getByRole('button', { name: 'bring back' }).click()
  await expect(page.getByText('Redshank is back.')).toBeVisible()
  expect((await page.request.get(`/api/cards/${card.id}`)).status()).toBe(200)
  await page.request.delete(`/api/cards/${card.id}`)
  await page.reload()
  await page.getByRole('row').filter({ hasText: 'Redshank' }).first().getByRole('button', { name: 'clear now' }).click()
  await page.getByRole('button', { name: 'Clear for good' }).click()
  await expect(page.getByText('Redshank is gone for good.')).toBeVisible()
  expect((await page.request.post(`/api/cards/${card.id}/restore`)).status()).toBe(404)
})

test('what is looked at on the rack stands in its address', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Cormorant' })).toBeVisible()
  // quicker than a slow machine draws: no letter and neither of the two may be lost
  const session = await page.context().newCDPSession(page)
  await session.send('Emulation.setCPUThrottlingRate', { rate: 6 })
  await page.getByLabel('Find a machine').pressSequentially('dunlin', { delay: 0 })
  await page.getByLabel('by', { exact: false }).last().selectOption('findings')
  await expect(page).toHaveURL(/find=dunlin/)
  await expect(page).toHaveURL(/by=findings/)
  await page.reload()
  await expect(page.getByLabel('Find a machine')).toHaveValue('dunlin')
  await expect(page.getByRole('link', { name: 'Cormorant' })).toHaveCount(0)
})

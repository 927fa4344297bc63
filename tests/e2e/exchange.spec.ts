import { readFileSync } from 'node:fs'
import { clear, dropOn } from './page'
import { demoPart, expect, test } from './server'
import { zipOf } from './zip'

const dunlin = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01'

interface CardFile {
  id: string
  document: {
    name: string
    envelope: { height: number; bed: { width: number } }
    head: { nozzles: { maxFlow: number }[] }
    routines: { start: string }
  }
}

test('a zip of folders is dropped, reviewed, taken, held against an own card, and put on paper', async ({ page, request }) => {
  const { document: own } = (await (await request.get(`/api${dunlin}`)).json()) as CardFile
  const made = await request.post('/api/cards', { data: { ...own, name: 'Whimbrel' } })
  const card = (await made.json()) as CardFile
  const whimbrel = `/cards/${card.id}`
  card.document.envelope.height = 151
  card.document.envelope.bed.width = 200
  card.document.head.nozzles[0]!.maxFlow = 9
  card.document.routines.start += 'M117 lent\n'
  const filament = { schema: 'mill-card/filament/1', name: 'Harbour PLA', diameter: 1.75 }
  const recipe = { schema: 'mill-card/recipe/1', name: 'Harbour thin', layers: { others: 0.15 } }
  const zip = zipOf({
    'yard/cards/whimbrel.json': JSON.stringify(card),
    'yard/stock/filament.json': JSON.stringify(filament),
    'yard/stock/inner.zip': zipOf({ 'deep/recipe.json': JSON.stringify(recipe) }),
    'yard/report.txt': 'echo: M92 X80.00 Y80.00 Z400.00 E96.00\necho: M203 X170 Y170 Z12 E60\n',
    'yard/gland.stl': readFileSync(demoPart('cable-gland')),
    'yard/half.stl': readFileSync(demoPart('cable-gland')).subarray(0, 4000),
    'yard/readme.txt': 'from the other yard',
  })
  await page.goto('/')
  await expect(page.getByRole('list', { name: 'Cards' })).toContainText('Dunlin')
  await dropOn(page, 'from-the-yard.zip', zip)

  await expect(page.getByRole('table', { name: 'Cards' })).toContainText('differs from Whimbrel')
  await expect(page.getByRole('table', { name: 'Filaments' })).toContainText('new here')
  await expect(page.getByRole('table', { name: 'Recipes' })).toContainText('from-the-yard.zip/yard/stock/inner.zip/deep/recipe.json')
  const others = page.getByRole('region', { name: 'Other files' })
  await expect(others.locator('tr', { hasText: 'half.stl' })).toContainText('damaged')
  await expect(others.locator('tr', { hasText: 'readme.txt' })).toContainText('not ours')
  // nothing is here before it is taken
  expect(JSON.stringify(await (await request.get('/api/filaments')).json())).not.toContain('Harbour PLA')
  await page.getByRole('button', { name: 'Take 2 documents' }).click()
  await expect(page.getByRole('table', { name: 'Filaments' })).toContainText('taken as Harbour PLA')
  expect(JSON.stringify(await (await request.get('/api/recipes')).json())).toContain('Harbour thin')

  await page.getByRole('table', { name: 'Cards' }).getByRole('link', { name: 'redline' }).click()
  await expect(page.getByText('4 differences')).toBeVisible()
  await expect(page.getByRole('img', { name: 'Both plans' })).toBeVisible()
  await expect(page.locator('.text-sides mark')).toHaveCount(0)
  for (const name of ['take bed width', 'take height', 'take nozzles n1, melting limit'])
    await page.getByLabel(name, { exact: true }).check()
  await expect(page.getByRole('region', { name: 'What follows' })).toContainText('X goes from 0 to 180 mm')
  await page.getByRole('button', { name: 'take over 3' }).click()
  await expect(page.getByText('One difference', { exact: true })).toBeVisible()
  await expect(page.locator('[data-save=saved]')).toBeVisible()
  const { document } = (await (await request.get(`/api${whimbrel}`)).json()) as CardFile
  expect([document.envelope.bed.width, document.envelope.height, document.head.nozzles[0]!.maxFlow]).toEqual([200, 151, 9])

  await page.getByRole('link', { name: 'Sheet' }).click()
  const paper = await page.getByRole('link', { name: 'On A3 paper' }).getAttribute('href')
  const pdf = await request.get(paper!)
  expect(pdf.headers()['content-type']).toBe('application/pdf')
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-')
  await clear(request, 'cards', 'Whimbrel')
  await clear(request, 'filaments', 'Harbour PLA')
  await clear(request, 'recipes', 'Harbour thin')
})

test('a settings report and a mesh that were dropped lead to a card', async ({ page, request }) => {
  await page.goto('/bin')
  await expect(page.getByText('Nothing is put away.')).toBeVisible()
  await dropOn(
    page,
    'more.zip',
    zipOf({ 'says.txt': 'M92 X80 Y80 Z400 E96\nM203 X170 Y170 Z12 E60\n', 'gland.stl': readFileSync(demoPart('cable-gland')) }),
  )
  const others = page.getByRole('region', { name: 'Other files' })
  await others.getByLabel('for the card').selectOption({ label: 'Cormorant' })
  await others.getByRole('button', { name: 'take its facts' }).click()
  await expect(page.getByRole('dialog', { name: 'What the firmware says of itself' })).toContainText('170')
  await page.goBack()
  await page.getByRole('region', { name: 'Other files' }).getByRole('button', { name: 'lay it on the bed' }).click()
  await expect(page.getByRole('region', { name: 'Parts' })).toContainText('gland')
  await clear(request, 'trials', 'gland')
})

test('everything is searched from any page, put away and brought back, and saved as a packet', async ({ page }) => {
  await page.goto('/stock')
  await page.getByRole('button', { name: 'What to do with Station night marker, glowing' }).click()
  await page.getByRole('menuitem', { name: 'put away' }).click()
  await expect(page.getByText('Station night marker, glowing is put away.')).toBeVisible()
  await page.keyboard.press('/')
  await page.keyboard.type('night marker')
  const found = page.getByRole('option', { name: /filament.*Station night marker/ })
  await expect(found).toContainText('put away')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/filaments\//)
  // a person who types on is not held up by a slow answer: what was typed is opened once it is there
  await page.goto('/stock')
  await expect(page.getByRole('link', { name: 'Station ASA, white', exact: true })).toBeVisible()
  await page.route('**/api/search*', async (route) => {
    await new Promise((done) => setTimeout(done, 300))
    await route.continue()
  })
  await page.keyboard.press('/')
  await page.keyboard.type('night marker')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/filaments\//)
  await page.unroute('**/api/search*')
  await page.getByLabel('tags', { exact: true }).fill('glow, night')
  await page.getByLabel('tags', { exact: true }).press('Enter')
  await expect(page.locator('[data-save=saved]')).toBeVisible()
  await page.goto('/bin')
  await page.getByRole('region', { name: 'Put away' }).getByRole('button', { name: 'bring back' }).click()
  await expect(page.getByText('Nothing is put away.')).toBeVisible()

  await page.goto('/')
  await page.getByLabel('choose Kittiwake').check({ force: true })
  await page.getByRole('button', { name: 'Save 1' }).click()
  await page.getByLabel('who packs it').fill('Mara')
  const saved = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  expect((await saved).suggestedFilename()).toBe('1 card.packet.zip')
})

test('a finding leads to the handbook, which is searched', async ({ page }) => {
  await page.goto('/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a14')
  await page
    .locator('.finding')
    .first()
    .getByRole('link', { name: /About the rule/ })
    .click()
  await expect(page.locator('.rule[data-meant]')).toBeVisible()
  await page.getByLabel('Find in the handbook').fill('junction')
  await expect(page.getByRole('region', { name: 'Formulas' })).toContainText('sin(θ/2)')
  await expect(page.getByRole('region', { name: 'Gauge pieces' })).toBeHidden()
})

test('a fact, a command and a name lead to their places in the handbook and back', async ({ page }) => {
  await page.goto(`${dunlin}/routines?moment=start&line=1`)
  const about = page.getByLabel('About this line')
  await page
    .getByRole('listitem')
    .filter({ hasText: /nozzle/i })
    .first()
    .click()
  await expect(about.getByRole('link', { name: /^About [MG]\d+$/ })).toBeVisible()
  const here = page.url()
  await about
    .getByRole('link', { name: /^About [a-z_]+\.[a-z_.]+$/ })
    .first()
    .click()
  await expect(page.locator('tr[data-meant]')).toBeVisible()
  await page.getByRole('link', { name: 'back to where you were' }).click()
  await expect(page).toHaveURL(here)
  await about.getByRole('link', { name: /^About [MG]\d+$/ }).click()
  await expect(page.locator('tr[data-meant]')).toContainText(/^[MG]\d+/)
  await expect(page).toHaveURL(/handbook\/dialects#marlin-/)

  await page.goto(dunlin)
  await page
    .locator('.schedule [data-pointer="/envelope/height"]')
    .getByRole('button', { name: /^Source of/ })
    .click()
  await page.getByRole('link', { name: /^About/ }).click()
  await expect(page.locator('tr[data-meant]')).toContainText('height')
})

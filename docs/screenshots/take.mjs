// Takes the pictures of the README from a running server with fresh demo data: node docs/screenshots/take.mjs http://127.0.0.1:7420
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'

const url = process.argv[2] ?? 'http://127.0.0.1:7420'
const here = dirname(fileURLToPath(import.meta.url))
const dunlin = `${url}/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01`
const avocet = `${url}/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a13`
const cormorant = `${url}/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a12`
const trial = `${url}/trials/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a04`

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
    '--font-render-hinting=none',
    '--no-first-run',
    '--disable-background-networking',
  ],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: 'light' })
const take = async (name) => {
  await page.waitForLoadState('networkidle')
  await page.screenshot({ path: join(here, `${name}.png`) })
}

await page.goto(url)
await page.getByText('Dunlin').waitFor()
await take('rack')

await page.goto(`${url}/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a11/measure-up/filament`)
await page.locator('[data-letter=A]').waitFor()
await take('measure-up')

await page.goto(`${url}/patterns/tool-changer`)
await page.getByText('What follows').waitFor()
await take('pattern')

await page.goto(dunlin)
await page.locator('[data-letter=A]').waitFor()
await page.locator('.schedule [data-pointer="/envelope/height"]').hover()
await take('card-sheet')

await page.goto(`${avocet}/head`)
await page.locator('.head-body').first().waitFor()
await take('head')

await page.goto(`${avocet}/reach`)
await page.getByRole('button', { name: /^mirror/ }).click()
await page.getByText('WHERE MIRROR MAY PRINT').waitFor()
await take('reach')

await page.goto(`${cormorant}/motion`)
await page.getByText('LADDER OF LAYER HEIGHTS').waitFor()
await page.getByRole('button', { name: /^Z/ }).click()
await page.getByRole('button', { name: /^bed/ }).click()
await page.getByText(/It ends at/).waitFor()
await take('motion')

await page.goto(`${avocet}/gauges`)
await page.getByText('dry run without a finding').nth(5).waitFor({ timeout: 30_000 })
await take('gauges')

await page.goto(`${url}/trials/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a05`)
await page.getByText('4 → 5').waitFor()
await page.keyboard.press('n')
await page.keyboard.press('n')
await page.getByText('printing cable gland 1').waitFor()
await take('print-order')

await page.goto(`${dunlin}/routines?line=13`)
await page.getByText('prints 140 mm').waitFor()
await page.locator('.shown .moved').waitFor({ state: 'attached' })
await take('routines')

await page.goto(`${url}/stock`)
await page.getByRole('button', { name: /^Station PETG, grey on Cormorant/ }).click()
await page.getByText('The print would never start.').waitFor()
await take('stock')

await page.goto(`${url}/recipes/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a08`)
await page.locator('[aria-label="Ladder and flow"] select').selectOption({ label: 'Dunlin' })
await page.getByText('On which cards').waitFor()
await page.locator('.flow-chart').waitFor()
await take('recipe')

await page.goto(`${url}/trials/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a0b`)
await page.locator('.verdict[data-state=current]').waitFor({ timeout: 60_000 })
await page.getByRole('slider', { name: 'Layer' }).waitFor({ timeout: 60_000 })
for (let i = 0; i < 30; i++) await page.getByRole('slider', { name: 'Layer' }).press('ArrowUp')
await page.getByRole('region', { name: 'Zones' }).getByRole('button', { name: 'screw' }).click()
await page.evaluate(() => document.activeElement?.blur())
await take('trial')

await page.goto(trial)
await page.locator('.verdict[data-state=current]').waitFor({ timeout: 60_000 })
await page.getByRole('slider', { name: 'Layer' }).waitFor({ timeout: 60_000 })

const api = (path, body) => page.request.post(`${url}/api/cards/${dunlin.split('/').at(-1)}${path}`, { data: body })
await page.goto(`${dunlin}/history`)
await page.locator('[data-stamp=holds]').waitFor()
await take('history')

await page.goto(`${dunlin}/redline?with=revision.A`)
await page.getByLabel('all of Envelope').check()
await page.getByRole('region', { name: 'What follows' }).waitFor()
await take('redline')

await page.goto(`${dunlin}/line`)
await page.getByRole('button', { name: 'Test the line' }).click()
await page.getByText('It matches the card.').waitFor()
await page.getByLabel('trial').selectOption(trial.split('/').at(-1))
await page.getByRole('button', { name: 'Send', exact: true }).click()
await page.locator('[data-job=sending]').waitFor()
await page.waitForTimeout(12_000)
await page.screenshot({ path: join(here, 'line.png') })
await api('/line/cancel')

await page.goto(`${trial}/run?line=20`)
await page.getByRole('option', { selected: true }).waitFor()
await take('dry-run')
const lent = await (await page.request.get(`${url}/api/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01`)).json()
lent.document.envelope.height = 168
const file = (name, content) => ({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(content) })
await page.goto(`${url}/take-in`)
await page
  .locator('[data-take-files]')
  .setInputFiles([
    file('dunlin, lent.json', JSON.stringify(lent)),
    file('harbour-thin.json', JSON.stringify({ schema: 'mill-card/recipe/1', name: 'Harbour thin', layers: { others: 0.15 } })),
    file('says.txt', 'M92 X80 Y80 Z400 E96\nM203 X170 Y170 Z12 E60\n'),
    file('cut-short.json', '{ "schema": "mill-card/card/1"'),
  ])
await page.getByText('differs from').waitFor()
await take('take-in')

await page.goto(`${url}/handbook/rules#wait-never-ends`)
await page.locator('[data-meant]').waitFor()
await take('handbook')

await browser.close()

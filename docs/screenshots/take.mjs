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
  args: ['--no-sandbox', '--font-render-hinting=none', '--no-first-run', '--disable-background-networking'],
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

await page.goto(`${dunlin}/routines`)
await page.locator('.cm-content').nth(1).waitFor()
await take('routines')

await page.goto(trial)
await page.getByRole('button', { name: 'Slice' }).click()
await page.getByRole('slider', { name: 'Layer' }).waitFor({ timeout: 60_000 })
await page.getByRole('slider', { name: 'Layer' }).fill('20')
await take('trial')

await page.goto(`${trial}/run?line=20`)
await page.getByRole('option', { selected: true }).waitFor()
await take('dry-run')
await browser.close()

// Makes the pictures of real prints in the demo: node demo/pictures.mjs http://127.0.0.1:PORT of a running Mill Card with the demo data.
// Each is the pictorial view of a trial's lines, up to a layer.
import { mkdirSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'

const [url = 'http://127.0.0.1:7450'] = process.argv.slice(2)
const folder = join(dirname(fileURLToPath(import.meta.url)), 'pictures')
const trials = {
  'float-clamps': '0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a04',
  'station-tags': '0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a21',
  corners: '0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a22',
  'tube-rack': '0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a23',
}

mkdirSync(folder, { recursive: true })
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--use-angle=swiftshader', '--enable-unsafe-swiftshader'],
})
const page = await browser.newPage({ viewport: { width: 1100, height: 900 } })
for (const [name, id] of Object.entries(trials)) {
  await page.goto(`${url}/trials/${id}`)
  await page.locator('.verdict[data-state=current]').waitFor({ timeout: 120_000 })
  await page.getByRole('slider', { name: 'Layer' }).press('End')
  await page.getByRole('button', { name: 'as lines' }).click()
  await page.keyboard.press('3')
  const view = page.getByRole('application', { name: 'Pictorial view' })
  if (name === 'station-tags') await page.getByLabel('drawn by').selectOption('nozzle')
  const frame = await view.boundingBox()
  const [x, y] = await view.evaluate((element) => {
    const circles = [...element.querySelectorAll('.part circle')].map((circle) => circle.getBoundingClientRect())
    const mean = (of) => circles.reduce((sum, box) => sum + of(box), 0) / circles.length
    return [mean((box) => box.x + box.width / 2), mean((box) => box.y + box.height / 2)]
  })
  await page.mouse.move(x, y)
  for (let i = 0; i < 3; i++) await page.mouse.wheel(0, -110)
  await page.addStyleTag({ content: '.pictorial-letters { display: none }' })
  await page.waitForTimeout(1500)
  const [width, height] = [480, 320]
  const within = (at, from, room, size) => Math.min(from + room - size, Math.max(from, at - size / 2))
  const corner = { x: within(x, frame.x, frame.width, width), y: within(y, frame.y, frame.height, height) }
  await page.screenshot({ path: join(folder, `${name}.png`), clip: { ...corner, width, height } })
  console.log(name)
}
await browser.close()

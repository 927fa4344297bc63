import { readFileSync } from 'node:fs'
import { expect, test } from './server'

const cormorant = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a12'

test('a gauge piece is saved as G-code, and what is measured on it becomes a fact', async ({ page }) => {
  await page.goto(`${cormorant}/gauges`)
  const cube = page.getByRole('region', { name: 'Steps cube' })
  await expect(cube.getByText('dry run without a finding')).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('region', { name: 'XY offset vernier' })).toContainText('It takes two nozzles.')
  const [download] = await Promise.all([page.waitForEvent('download'), cube.getByRole('button', { name: 'Save the G-code' }).click()])
  expect(download.suggestedFilename()).toBe('steps-cube.gcode')
  expect(readFileSync(await download.path(), 'utf8')).toContain('; layers begin')

  // the nominal inside stands in its field; both 0.3 mm small
  const inside = cube.getByLabel('Steps cube, along X, inside')
  const nominal = Number(await inside.getAttribute('placeholder'))
  await cube.getByLabel('Steps cube, along X, outside').fill('29,97')
  await inside.fill(String(nominal - 0.03))
  await expect(cube).toContainText('nothing to change')
  await cube.getByLabel('Steps cube, along X, outside').fill('29,7')
  await inside.fill(String(nominal - 0.3))
  await expect(cube).toContainText(/steps per mm X: 80 → 80\.8/)
  const taken = /80 → (80\.\d+)/.exec(await cube.innerText())![1]!
  await cube.getByRole('button', { name: 'take it' }).click()
  await expect(cube).toContainText(taken)
  await page.getByRole('link', { name: 'Motion and heat' }).click()
  await page.getByRole('button', { name: /^X/ }).click()
  await expect(page.getByLabel('X, steps per mm, entered')).toHaveValue(taken)
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(page.getByLabel('X, steps per mm, entered')).toHaveValue('80')
})

test('a result that belongs to a filament is taken into the filament that is chosen', async ({ page }) => {
  await page.goto(`${cormorant}/gauges`)
  const wall = page.getByRole('region', { name: 'Line width and flow wall' })
  await wall.getByLabel(/thickness of the wall/).fill('0.7')
  await expect(wall).toContainText('choose the filament above to take it')
  await page.getByLabel('filament').selectOption({ label: 'Station PETG, grey' })
  // dry runs with this filament come in by and by, and what they say moves what stands below them
  await expect(wall).toContainText('This bed ends at 71 °C')
  await page.waitForLoadState('networkidle')
  await wall.getByRole('button', { name: 'take it for Station PETG, grey' }).click()
  await expect(wall).toContainText(/flow: 0\.9\d* → /)
  await page.goto('/trials/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a06')
  await page.getByRole('button', { name: /Filament/ }).click()
  const flow = page.getByLabel('flow', { exact: true })
  await expect(flow).toHaveValue(/0\.9/)
  await flow.fill('96')
  await expect(page.getByText('= 0.96')).toBeVisible()
})

import { readFileSync, writeFileSync } from 'node:fs'
import { computed } from './computed'
import { drop, openTrial } from './onBed'
import { demoPart, expect, test } from './server'

test('a part is dropped, moved, fitted, sliced, looked at, dry-run and saved', async ({ page }) => {
  await openTrial(page)
  await drop(page, 'quadrat-corner.stl', readFileSync(demoPart('quadrat-corner')))
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')

  await page.getByLabel('quadrat corner X').fill('20')
  await page.getByLabel('quadrat corner Y').fill('70')
  await expect(page.locator('[data-verdict="0"]')).toHaveText('does not fit')
  // 50 mm wide: its left edge is at −5, the skirt of 4 + 0.45 mm beyond, the usable bed begins at 3; grown by at most 0.01 mm to the safe
  // side
  await expect(page.locator('[data-violation=bed]')).toContainText(/stands 8\.00 mm beyond the usable bed; its skirt 12\.4[56] mm/)
  await expect(page.locator('[data-violation=keep-out]')).toContainText('left clip')
  await page.getByRole('button', { name: /^Move / }).click()
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')

  const part = page.locator('[data-part="0"]')
  const box = (await part.boundingBox())!
  await page.mouse.move(box.x + 15, box.y + box.height - 15)
  await page.mouse.down()
  await page.mouse.move(box.x + 60, box.y + box.height - 60, { steps: 6 })
  await page.mouse.up()
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')
  await part.focus()
  const before = Number(await page.getByLabel('quadrat corner X').inputValue())
  await page.keyboard.press('Shift+ArrowRight')
  await expect(page.getByLabel('quadrat corner X')).toHaveValue(String(Math.round((before + 10) * 1000) / 1000))

  await computed(page)
  await expect(page.getByText('Fits, prints, ends safe')).toBeVisible()
  await expect(page.getByText(/^No finding/)).toBeVisible()
  await expect(page.locator('.figures')).toContainText('min')
  const ruler = page.getByRole('slider', { name: 'Layer' })
  for (let i = 0; i < 10; i++) await ruler.press('ArrowUp')
  await expect(page.getByText('LAYER 11 OF 90')).toBeVisible()
  await expect(page.locator('.layer-paths .outer-wall').first()).toBeVisible()
  // the strip along time looks at the same moment
  const strip = page.getByRole('slider', { name: 'Moment of the print' })
  await expect(strip).toHaveAttribute('aria-valuenow', '11')
  await strip.press('End')
  await expect(page.getByText('LAYER 90 OF 90')).toBeVisible()

  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Save the G-code' }).click()])
  expect(download.suggestedFilename()).toMatch(/^Trial .*-.+\.gcode$/)
  expect(readFileSync(await download.path(), 'utf8')).toContain('; layer 90 of 90')

  await page.getByRole('link', { name: 'Look at every line' }).click()
  await expect(page.getByRole('option').filter({ hasText: 'to the end-stops' })).toBeVisible()
  await page.getByRole('listbox').focus()
  await page.keyboard.press('End')
  await expect(page.getByRole('option').filter({ hasText: 'motors off' })).toBeVisible()
})

test('parts are laid on free ground, a bed is filled and arranged, and nothing is removed', async ({ page }) => {
  await openTrial(page)
  // one after the other: dropped together, the one that is read first comes first
  for (const [part, name] of ['quadrat-corner', 'cable-gland'].entries()) {
    await drop(page, `${name}.stl`, readFileSync(demoPart(name)))
    await expect(page.locator(`[data-verdict="${part}"]`)).toHaveText('fits')
  }
  await page.getByRole('button', { name: 'fill the bed' }).click()
  await expect(page.locator('[data-verdict]').nth(5)).toHaveText('fits')
  const full = await page.locator('[data-verdict]').count()
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')
  await expect(page.getByText('quadrat corner', { exact: true })).toBeVisible()

  // one on the other: the key lays them apart again
  await page.getByLabel('choose part 2, cable gland').click()
  await page.getByLabel('cable gland X').fill('90')
  await page.getByLabel('cable gland Y').fill('80')
  await expect(page.getByRole('region', { name: 'Verdict' })).toContainText('parts do not fit')
  await page.getByRole('button', { name: 'arrange · g' }).click()
  await computed(page)
  await expect(page.locator('[data-verdict]')).toHaveCount(full)
  await expect(page.getByRole('region', { name: 'Verdict' })).toContainText('Fits, prints')
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(page.getByRole('region', { name: 'Verdict' })).toContainText('parts do not fit')
})

test('slicing can be cancelled', async ({ page }) => {
  await openTrial(page)
  await drop(page, 'rack.stl', readFileSync(demoPart('sample-tube-rack')))
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')
  await page.getByRole('button', { name: 'Cancel' }).click()
  await expect(page.getByRole('button', { name: 'Slice' })).toBeEnabled()
  await expect(page.getByText('Not computed yet')).toBeVisible()
  await expect(page.locator('.figures')).toHaveCount(0)
})

test('files that are no meshes are refused in a sentence and nothing is lost', async ({ page }) => {
  await openTrial(page)
  const good = readFileSync(demoPart('cable-gland'))
  await drop(page, 'gland.stl', good)
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')

  await drop(page, 'list.stl', Buffer.from('a shopping list\0\x01'))
  await expect(page.getByText('list.stl: This is not an STL file')).toBeVisible()
  await drop(page, 'short.stl', good.subarray(0, 5000))
  await expect(page.getByText(/short.stl: This STL claims \d+ faces but holds only \d+/)).toBeVisible()
  const boastful = Buffer.from(good)
  boastful.writeUInt32LE(4_000_000_000, 80)
  await drop(page, 'boastful.stl', boastful)
  await expect(page.getByText(/boastful.stl: This/)).toBeVisible()
  await expect(page.locator('[data-verdict]')).toHaveCount(1)
})

test('a program can be brought; what is wrong with it is marked at its line, and one too large is refused', async ({ page }) => {
  await openTrial(page)
  const address = page.url()
  await page.goto(`${address}/run`)
  await page.locator('[data-bring-file]').setInputFiles({
    name: 'old.gcode',
    mimeType: 'text/plain',
    buffer: Buffer.from('G28\nM104 S200\nG1 X50 Y50 Z1 F3000\nM83\nG1 X60 E2 F600\nG1 X400\n'),
  })
  for (const rule of ['cold-extrusion', 'outside-travel', 'nozzle-left-on']) await expect(page.locator(`[data-rule=${rule}]`)).toBeVisible()
  await page.locator('[data-rule=outside-travel]').getByRole('button', { name: 'line 6' }).click()
  await expect(page.getByRole('option', { selected: true })).toContainText('G1 X400')

  const huge = test.info().outputPath('huge.gcode')
  writeFileSync(huge, Buffer.alloc(65 * 2 ** 20, 'G1 X1\n'))
  await page.locator('[data-bring-file]').setInputFiles(huge)
  await expect(page.getByText('huge.gcode: This file has 65 MB; at most 64 MB of G-code are taken.')).toBeVisible()
  await expect(page.getByRole('option', { selected: true })).toContainText('G1 X400')
})

test('a part is scaled, set on another side, turned by its handle and held by limits of the trial', async ({ page }) => {
  await openTrial(page)
  await drop(page, 'quadrat-corner.stl', readFileSync(demoPart('quadrat-corner')))
  const size = page.locator('tbody tr').first().locator('td').nth(2)
  await expect(size).toHaveText('50×50×18')
  await page.getByRole('button', { name: 'stand, scale' }).click()
  await page.getByLabel('quadrat corner scale').fill('200')
  await expect(size).toHaveText('100×100×36')
  await page.getByLabel('quadrat corner size along X').fill('2 in')
  await expect(size).toHaveText('50.8×100×36')
  await page.getByLabel('quadrat corner scale').fill('100')
  await expect(size).toHaveText('50×50×18')
  // the flat sides are listed by area: the third is one of the frame's outer faces
  await page.getByLabel('quadrat corner stands on').selectOption({ index: 4 })
  await expect(size).toHaveText(/^(18×50×50|50×18×50)$/)
  await page.getByLabel('quadrat corner X').fill('90')
  await page.getByLabel('quadrat corner Y').fill('90')

  const handle = (await page.locator('[data-handle=turn]').boundingBox())!
  await page.mouse.move(handle.x + handle.width / 2, handle.y + handle.height / 2)
  await page.mouse.down()
  await page.mouse.move(handle.x + 150, handle.y + 100, { steps: 8 })
  await page.mouse.up()
  const turn = Number(await page.getByLabel('quadrat corner turn').inputValue())
  expect(turn).not.toBe(0)
  expect(turn % 15).toBe(0)

  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')
  await page.getByRole('button', { name: 'Limits of this trial' }).click()
  await page.getByLabel('no higher than').fill('48')
  await expect(page.locator('[data-violation=height]')).toContainText('this trial takes 48.00. It is 2.00 mm too high')
  await page.getByLabel('no higher than').fill('')
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')

  // the tilt handle stays in hand while the part is drawn anew, and a verdict with its cure follows when it is let go
  const tilt = (await page.locator('[data-handle=tilt]').boundingBox())!
  await page.mouse.move(tilt.x + tilt.width / 2, tilt.y + tilt.height / 2)
  await page.mouse.down()
  await page.mouse.move(tilt.x + 60, tilt.y + 40, { steps: 12 })
  await expect(page.locator('[data-handle=tilt]')).toBeVisible()
  await page.mouse.move(tilt.x + 90, tilt.y + 60, { steps: 6 })
  await page.mouse.up()
  await page.getByLabel('quadrat corner X').fill('-20')
  await expect(page.locator('[data-violation=bed]')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Move [\d.]+ mm/ })).toBeVisible()
  await expect(page.getByText('No move cures it.')).toHaveCount(0)
})

test('a skirt that does not fit is told as the skirt, and its gap is mended with one button', async ({ page }) => {
  await openTrial(page)
  await drop(page, 'quadrat-corner.stl', readFileSync(demoPart('quadrat-corner')))
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')
  // 50 mm deep, 5 mm from the front edge, of which the margin takes 3
  await page.getByLabel('quadrat corner Y').fill('30')
  await expect(page.locator('[data-violation=bed]')).toContainText(/The skirt of quadrat corner lies [\d.]+ mm beyond/)
  await page.getByRole('button', { name: /^Skirt: a gap of/ }).click()
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')
})

test('a refusal is told of the state that was refused, and of no other', async ({ page }) => {
  await openTrial(page)
  await drop(page, 'quadrat-corner.stl', readFileSync(demoPart('quadrat-corner')))
  const verdict = page.getByRole('region', { name: 'Verdict' })
  await expect(verdict).toHaveAttribute('data-state', 'current')
  await verdict.getByRole('button', { name: 'by hand only' }).click()
  await page.getByLabel('quadrat corner Y').fill('-20')
  await expect(page.locator('[data-violation=bed]')).toBeVisible()
  await verdict.getByRole('button', { name: 'Slice' }).click()
  await expect(verdict).toHaveAttribute('data-state', 'refused')
  await page.getByLabel('quadrat corner Y').fill('60')
  await expect(verdict).toHaveAttribute('data-state', 'old')
  await expect(verdict).toContainText('Changed since')
  await verdict.getByRole('button', { name: 'compute changes unasked' }).click()
  await expect(verdict).toHaveAttribute('data-state', 'current')
})

test('a print stops at a height for another filament, and its plastic is told apart', async ({ page }) => {
  await openTrial(page)
  await drop(page, 'quadrat-corner.stl', readFileSync(demoPart('quadrat-corner')))
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')
  await page.getByRole('region', { name: 'Events' }).getByRole('button', { name: 'add a height' }).click()
  await page.getByLabel('event 1 height').fill('100')
  await expect(page.getByRole('region', { name: 'Verdict' }).getByText('The stop at 100 mm does not come')).toBeVisible({ timeout: 30_000 })

  await page.getByLabel('event 1 height').fill('6')
  await computed(page)
  await expect(page.getByText(/^No finding/)).toBeVisible()
  const uses = page.getByRole('table', { name: 'By use' })
  await expect(uses.getByRole('row', { name: /^parts/ })).toContainText(/\d m[\d.]+ g/)
  await expect(uses.getByRole('row', { name: /^skirt/ })).toBeVisible()
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Save the G-code' }).click()])
  expect(readFileSync(await download.path(), 'utf8').match(/^M600$/gm)).toHaveLength(1)
  await page.reload()
  await expect(page.getByLabel('event 1 height')).toHaveValue('6')
  await page.getByRole('region', { name: 'Events' }).getByRole('button', { name: 'remove' }).click()
  await expect(page.getByLabel('event 1 height')).toHaveCount(0)
})

test('layers between two heights are as high as the owner says by hand', async ({ page }) => {
  await openTrial(page)
  await drop(page, 'quadrat-corner.stl', readFileSync(demoPart('quadrat-corner')))
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')
  await page.getByRole('region', { name: 'Layer heights' }).getByRole('button', { name: 'add a band' }).click()
  await page.getByLabel('band 1 begins').fill('4')
  await page.getByLabel('band 1 ends').fill('3')
  await expect(page.getByText('Layers of 0.1 mm are asked for from 4 mm up to 3.')).toBeVisible({ timeout: 30_000 })

  await page.getByLabel('band 1 ends').fill('5')
  await page.getByLabel('band 1 layer height').fill('0.08')
  await computed(page)
  const saved = page.getByRole('link', { name: 'Save the G-code' })
  await expect(saved).toBeVisible()
  const [download] = await Promise.all([page.waitForEvent('download'), saved.click()])
  const tops = [...readFileSync(await download.path(), 'utf8').matchAll(/^; layer \d+ of \d+, z ([\d.]+)/gm)].map((m) => Number(m[1]))
  const heights = tops.slice(1).map((top, i) => ({ bottom: tops[i] ?? 0, height: Number((top - (tops[i] ?? 0)).toFixed(3)) }))
  expect(new Set(heights.filter((l) => l.bottom > 3.999 && l.bottom < 4.999).map((l) => l.height))).toEqual(new Set([0.08]))
  expect(heights.filter((l) => l.height === 0.08).length).toBeGreaterThan(10)
  expect(heights.filter((l) => l.bottom > 5.1).every((l) => l.height !== 0.08)).toBe(true)
  await page.reload()
  await expect(page.getByLabel('band 1 layer height')).toHaveValue('0.08')
  await page.getByRole('region', { name: 'Layer heights' }).getByRole('button', { name: 'remove' }).click()
  await expect(page.getByLabel('band 1 begins')).toHaveCount(0)
})

test('on a tool changer every nozzle says what it holds, is matched by itself, and is counted by itself', async ({ page }) => {
  await page.goto('/trials/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a0d')
  const nozzles = page.getByRole('region', { name: 'Nozzles' })
  await expect(nozzles).toContainText('3 print')
  await expect(nozzles.getByRole('row', { name: /^n3/ })).toContainText('nothing')
  const match = page.getByRole('region', { name: 'Match' })
  await expect(match).toContainText('it is heated to 75 °C')
  await nozzles.getByLabel('filament in n4').selectOption({ label: 'Station night marker, glowing' })
  await expect(match).toContainText('n4: It wears brass')
  await nozzles.getByLabel('filament in n4').selectOption({ label: 'Station seal TPU, black' })
  await expect(match).not.toContainText('wears brass, and this nozzle is as soft')
  await page.getByRole('button', { name: 'choose part 3, gland seal' }).click()
  await page.getByLabel('gland seal nozzle').selectOption('n3')
  await expect(nozzles.getByRole('row', { name: /^n3/ })).toContainText('gland seal')
  await page.getByLabel('gland seal nozzle').selectOption('n4')
  await computed(page)
  const used = page.getByRole('table', { name: 'By nozzle' })
  await expect(used.getByRole('row')).toHaveCount(3, { timeout: 60_000 })
  await expect(used.getByRole('row', { name: /^n4/ })).toContainText(/\d m\d+(\.\d)? g/)
  await expect(page.getByText(/changes of nozzle take .* One at a time/)).toBeVisible()
})

import { readFileSync } from 'node:fs'
import { boxStl, drop, dropAll, openTrial } from './onBed'
import { computed } from './computed'
import { demoPart, expect, test } from './server'

const verdict = (part: number) => `[data-verdict="${part}"]`

test('two files that meet as they were drawn become one piece in two materials: dropped, looked at, saved', async ({ page }) => {
  await openTrial(page, 'Oystercatcher')
  await dropAll(page, [
    ['plate.stl', boxStl([100, 0, 0], [30, 20, 2])],
    ['letter.stl', boxStl([110, 6, 2], [10, 8, 1])],
  ])
  await expect(page.getByText('meet as they were drawn: they keep their place')).toBeVisible()
  for (const part of [0, 1]) await expect(page.locator(verdict(part))).toHaveText('fits')
  await expect(page.locator('.assembly-mark')).toHaveText(['A', 'A'])
  await page.getByLabel('choose part 2, letter').click()
  await expect(page.getByLabel('letter lift')).toHaveValue('2')
  // they move as one
  await page.getByLabel('choose part 1, plate').click()
  const before = Number(await page.getByLabel('plate X').inputValue())
  await page.locator('[data-part="0"]').focus()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByLabel('plate X')).toHaveValue(String(before + 1))
  await page.getByLabel('choose part 2, letter').click()
  await expect(page.getByLabel('letter X')).toHaveValue(String(before + 1))

  const filament = page.getByLabel('filament in n2')
  await filament.selectOption({ index: (await filament.locator('option').count()) - 1 })
  await computed(page)
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Save the G-code' }).click()])
  const program = readFileSync(await download.path(), 'utf8')
  expect(program).toMatch(/^T0$/m)
  expect(program).toMatch(/^T1$/m)

  await page.getByRole('button', { name: 'take apart' }).click()
  await expect(page.locator('.assembly-mark')).toHaveCount(0)
  await expect(page.locator(verdict(1))).toHaveText('does not fit')
})

test('a part is cut with pegs, mirrored, copied and removed by keys, and all of it is undone', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('mill-card/compute-by-hand', 'true'))
  await openTrial(page)
  await drop(page, 'quadrat-corner.stl', readFileSync(demoPart('quadrat-corner')))
  await expect(page.locator(verdict(0))).toHaveText('fits')
  await page.getByRole('button', { name: 'cut', exact: true }).click()
  await page.getByLabel('quadrat corner cut at').fill('40')
  await expect(page.getByText(/at most 18/)).toBeVisible()
  await page.getByLabel('quadrat corner cut at').fill('9')
  await page.getByText('pegs, with holes in both halves').click()
  await page.getByLabel('quadrat corner diameter').fill('20')
  await page.getByRole('button', { name: 'cut it' }).click()
  await expect(page.getByText(/There is room for 0 of 2 pegs of 20 mm/)).toBeVisible()
  await page.getByLabel('quadrat corner diameter').fill('3')
  await page.getByRole('button', { name: 'cut it' }).click()
  await expect(page.locator('[data-verdict]')).toHaveText(['fits', 'fits', 'fits', 'fits'])
  await expect(page.getByRole('table').first()).toContainText('quadrat corner, peg 2')

  // pegs away, halves mirrored
  await page.getByLabel('choose part 4, quadrat corner, peg 2').click()
  await page.keyboard.press('Delete')
  await expect(page.locator('[data-verdict]')).toHaveCount(3)
  await page.keyboard.press('Control+a')
  await page.keyboard.press('m')
  await page.getByLabel('choose part 1, quadrat corner, lower').click()
  await expect(page.getByText('The mirror image of its file.')).toBeVisible()
  await page.keyboard.press('Control+c')
  await page.keyboard.press('Control+v')
  await expect(page.locator('[data-verdict]')).toHaveText(['fits', 'fits', 'fits', 'fits'])
  await page.locator('[data-part="0"]').click({ button: 'right' })
  await page.getByRole('menuitem', { name: /^remove/ }).click()
  await expect(page.locator('[data-verdict]')).toHaveCount(3)
  for (let i = 0; i < 6; i++) await page.getByRole('button', { name: 'undo' }).click()
  await expect(page.locator('[data-verdict]')).toHaveCount(1)
  await expect(page.getByRole('table').first()).toContainText('quadrat corner')
})

test('halves of a cut are printed in copy and in mirror by two carriages', async ({ page }) => {
  await openTrial(page, 'Avocet')
  await drop(page, 'gland.stl', readFileSync(demoPart('cable-gland')))
  await page.getByRole('button', { name: 'cut', exact: true }).click()
  await page.getByLabel('gland cut at').fill('12')
  await page.getByText('halves on their cut faces').click()
  await page.getByRole('button', { name: 'cut it' }).click()
  await expect(page.locator('[data-verdict]')).toHaveText(['fits', 'fits'])
  await page.getByLabel('choose part 2, gland, upper').click()
  await page.keyboard.press('Delete')
  for (const mode of ['copy', 'mirror']) {
    await page.getByRole('combobox', { name: 'Mode' }).selectOption(mode)
    await expect(page.locator('.ghost')).toHaveCount(1)
    await page.getByRole('button', { name: 'arrange · g' }).click()
    await expect(page.locator(verdict(0))).toHaveText('fits')
    await computed(page)
    // a print of both carriages at once: what one nozzle lays is laid twice
    await expect(page.getByRole('region', { name: 'Verdict' })).toContainText('Fits,')
  }
})

test('a zone is dragged and pulled on plan and elevation, a part is lifted, and undo takes both back', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('mill-card/compute-by-hand', 'true'))
  await openTrial(page)
  await drop(page, 'quadrat-corner.stl', readFileSync(demoPart('quadrat-corner')))
  await expect(page.locator(verdict(0))).toHaveText('fits')
  await page.getByRole('region', { name: 'Zones' }).getByRole('button', { name: 'box' }).click()
  const field = (name: string) => page.getByLabel(`zone 1 ${name}`, { exact: true })
  await expect(field('width')).toHaveValue('20')
  const corner = (await page.getByRole('button', { name: 'size of zone zone 1' }).boundingBox())!
  await page.mouse.move(corner.x + 4, corner.y + 4)
  await page.mouse.down()
  await page.mouse.move(corner.x + 34, corner.y + 4, { steps: 4 })
  await page.mouse.up()
  await expect.poll(async () => Number(await field('width').inputValue())).toBeGreaterThan(30)
  await expect(field('depth')).toHaveValue('20')
  await page.getByRole('button', { name: 'zone zone 1, to be moved' }).focus()
  await page.keyboard.press('Shift+ArrowLeft')
  await expect(field('X')).toHaveValue('80')
  await page.getByRole('button', { name: 'top of zone zone 1' }).focus()
  await page.keyboard.press('ArrowUp')
  await expect(field('height')).toHaveValue('21')

  const front = page.getByRole('button', { name: /^quadrat corner from the front/ })
  await front.focus()
  await page.keyboard.press('Alt+ArrowUp')
  await page.keyboard.press('ArrowUp')
  await page.getByLabel('choose part 1, quadrat corner').click()
  await expect(page.getByLabel('quadrat corner lift')).not.toHaveValue('0')
  await page.getByLabel('quadrat corner lift').fill('-2')
  await expect(page.getByText('Sunk by 2 mm: what lies below the bed is not printed.')).toBeVisible()
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(page.getByText(/^Sunk by/)).toHaveCount(0)
})

test('the pictorial view is turned by keys, fills the sheet, and its parts are chosen, painted and set on a face', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('mill-card/compute-by-hand', 'true'))
  await openTrial(page)
  await drop(page, 'block.stl', boxStl([0, 0, 0], [60, 40, 20]))
  await expect(page.locator(verdict(0))).toHaveText('fits')
  const space = page.getByRole('application', { name: 'Pictorial view' })
  await expect(space.locator('canvas')).toBeVisible()
  await space.focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowUp')
  await expect(space).toHaveAttribute('data-azimuth', '40')
  await expect(space).toHaveAttribute('data-elevation', '40')
  await page.keyboard.press('Home')
  await expect(space).toHaveAttribute('data-azimuth', '45')
  await page.keyboard.press('3')
  await expect(page.getByLabel('Bed with parts')).toHaveCount(0)

  // what is drawn under the pointer is a part: a brush marks its faces
  const middle = async () => {
    const box = (await space.boundingBox())!
    return [box.x + box.width / 2, box.y + box.height / 2] as const
  }
  await page.getByRole('button', { name: 'paint marks' }).click()
  await page.getByLabel('what is painted').selectOption('no support')
  await page.mouse.move(...(await middle()))
  await page.mouse.down()
  await page.mouse.move((await middle())[0] + 4, (await middle())[1], { steps: 2 })
  await page.mouse.up()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await expect(page.getByLabel('Bed with parts')).toBeVisible()
  const saved = async () => {
    const id = new URL(page.url()).pathname.split('/').at(-1)
    const answer = (await (await page.request.get(`/api/trials/${id}`)).json()) as {
      document: { parts: { marks?: { wanted: boolean; faces: number[] }[]; tilt?: { x: number; y: number } | null }[] }
    }
    return answer.document.parts[0]!
  }
  await expect.poll(async () => (await saved()).marks?.map(({ wanted }) => wanted)).toEqual([false])

  // set on the face that is clicked: the side that looked up lies on the bed then
  await page.keyboard.press('3')
  await expect(page.getByLabel('Bed with parts')).toHaveCount(0)
  await page.keyboard.press('f')
  await expect(page.getByRole('button', { name: /stand on a face/ })).toHaveAttribute('aria-pressed', 'true')
  // the view may not be drawn at its new size yet: what is clicked then is the bed
  await expect(async () => {
    await page.mouse.click(...(await middle()))
    await expect.poll(async () => (await saved()).tilt, { timeout: 4000 }).toBeTruthy()
  }).toPass()
  await expect(page.getByRole('button', { name: 'choose', exact: true })).toHaveAttribute('aria-pressed', 'true')
})

test('handles in space turn, scale and tilt a part; an assembly is tilted and scaled as one piece', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('mill-card/compute-by-hand', 'true'))
  await openTrial(page)
  await drop(page, 'block.stl', boxStl([0, 0, 0], [40, 30, 20]))
  await expect(page.locator(verdict(0))).toHaveText('fits')
  interface Standing {
    x: number
    lift?: number
    turn: number
    scale?: { x: number; z: number }
    tilt?: { x: number; y: number }
  }
  const saved = async () => {
    const id = new URL(page.url()).pathname.split('/').at(-1)
    return ((await (await page.request.get(`/api/trials/${id}`)).json()) as { document: { parts: Standing[] } }).document.parts
  }
  await page.getByLabel('choose part 1, block').click()
  await page.keyboard.press('3')
  await expect(page.getByLabel('Bed with parts')).toHaveCount(0)
  const handle = (name: string) => page.locator(`[data-handle=space-${name}]`)
  const middleOf = async (name: string) => {
    const box = (await handle(name).boundingBox())!
    return [box.x + box.width / 2, box.y + box.height / 2] as const
  }
  const drag = async (name: string, to: readonly [number, number]) => {
    await page.mouse.move(...(await middleOf(name)))
    await page.mouse.down()
    await page.mouse.move(...to, { steps: 4 })
    await page.mouse.up()
  }
  // what scales stands to the right and in front of the part: 135° from behind it, the other way round
  await drag('turn', await middleOf('scale'))
  await expect.poll(async () => (await saved())[0]?.turn).toBe(225)
  await drag('scale', await middleOf('turn'))
  await expect.poll(async () => (await saved())[0]?.scale?.z ?? 1).toBeGreaterThan(1.05)
  const [x, y] = await middleOf('tilt-y')
  await drag('tilt-y', [x - 60, y])
  await expect.poll(async () => Math.abs((await saved())[0]?.tilt?.y ?? 0)).toBeGreaterThanOrEqual(15)
  expect((await saved())[0]!.tilt!.y % 15).toBe(0)
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'undo' }).click()
  await expect.poll(async () => (await saved())[0]).toMatchObject({ turn: 0 })
  expect((await saved())[0]!.tilt ?? undefined).toBeUndefined()

  // a plate with a letter on it, stood on its edge: the letter comes to lie beside it, as far away as it was above it
  await page.keyboard.press('Escape')
  await dropAll(page, [
    ['plate.stl', boxStl([100, 0, 0], [30, 20, 2])],
    ['letter.stl', boxStl([110, 6, 2], [10, 8, 1])],
  ])
  await expect(page.locator('.assembly-mark')).toHaveText(['A', 'A'])
  await page.getByLabel('choose part 2, plate').click()
  await page.getByRole('button', { name: 'stand, scale' }).click()
  await expect(page.getByLabel('plate size along X')).toHaveCount(0)
  await page.getByLabel('plate tilt about Y').fill('90')
  await expect.poll(async () => (await saved()).slice(1).map(({ tilt }) => tilt?.y)).toEqual([90, 90])
  const [plate, letter] = (await saved()).slice(1) as [Standing, Standing]
  expect(letter.x - plate.x).toBeCloseTo(1.5, 3)
  expect([plate.lift, letter.lift]).toEqual([0, 10])
  await page.getByLabel('plate scale').fill('200')
  await expect.poll(async () => (await saved()).slice(1).map(({ scale }) => scale?.x)).toEqual([2, 2])
  const [large, onIt] = (await saved()).slice(1) as [Standing, Standing]
  expect(onIt.x - large.x).toBeCloseTo(3, 3)
  expect(onIt.lift).toBe(20)
})

test('a variant is kept and taken back, and the trial is made on another card', async ({ page }) => {
  await openTrial(page)
  await drop(page, 'block.stl', boxStl([0, 0, 0], [20, 20, 4]))
  await computed(page)
  await page.getByLabel('trial', { exact: true }).fill('Block')
  await page.getByRole('button', { name: 'keep this one · k' }).click()
  await expect(page.getByText('A is as it is now.')).toBeVisible()
  const walls = page.getByLabel('walls', { exact: true })
  const before = await walls.inputValue()
  await walls.fill('6')
  await computed(page)
  await expect(page.getByText(`A has walls ${before}.`)).toBeVisible()
  await page.getByRole('button', { name: 'take A' }).click()
  await expect(walls).toHaveValue(before)
  await computed(page)
  await expect(page.getByText('A is as it is now.')).toBeVisible()

  const cards = page.getByRole('region', { name: 'On which card' })
  await cards.getByRole('button', { name: 'look at all cards' }).click()
  await expect(cards.getByRole('button', { name: 'look again' })).toBeVisible()
  await expect(cards.getByRole('row', { name: /Sanderling/ })).toContainText('not complete')
  await cards
    .getByRole('row', { name: /Cormorant/ })
    .getByRole('button', { name: 'make it there' })
    .click()
  await expect(page.getByLabel('trial', { exact: true })).toHaveValue('Block, on Cormorant')
  await expect(page.locator(verdict(0))).toHaveText('fits')
})

test('moves of a layer are stepped through with the head drawn, and any setting is found by other words', async ({ page }) => {
  await openTrial(page)
  await drop(page, 'block.stl', boxStl([0, 0, 0], [20, 20, 2]))
  await computed(page)
  const moment = page.getByRole('group', { name: 'Program at this moment' })
  const line = async () => Number((await moment.getByRole('link').innerText()).replace('line ', ''))
  await expect(moment.locator('code')).toContainText('G1')
  await expect(page.locator('.head-at')).toHaveCount(0)
  const first = await line()
  await moment.getByRole('button', { name: 'a move on' }).click()
  await expect.poll(line).toBeGreaterThan(first)
  // from above and from the front
  await expect(page.locator('.head-at')).toHaveCount(2)
  await page.keyboard.press(',')
  await expect.poll(line).toBe(first)
  await page.getByRole('slider', { name: 'Layer' }).press('ArrowUp')
  await expect(page.locator('.head-at')).toHaveCount(0)
  await expect.poll(line).toBeGreaterThan(first + 10)

  const settings = page.getByRole('region', { name: 'Settings' })
  await page.keyboard.press('Control+/')
  await page.keyboard.type('perimeters')
  const walls = settings.locator('[data-setting="/recipe/walls"]')
  await expect(walls).toContainText('mm thick')
  await walls.getByRole('textbox').fill('4')
  await settings.getByRole('textbox', { name: 'Find a setting' }).fill('nothing of the kind')
  await expect(settings.getByRole('status')).toHaveText('No setting answers to that.')
  await settings.getByRole('textbox', { name: 'Find a setting' }).fill('')
  await expect(settings.getByRole('heading', { name: 'Touched last' })).toBeVisible()
  await expect(walls.getByRole('textbox')).toHaveValue('4')
  await expect(page.getByLabel('walls', { exact: true })).toHaveValue('4')
})

test('a cut is drawn by its plane, a zone spans heights, and seams are painted beside supports', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('mill-card/compute-by-hand', 'true'))
  await openTrial(page)
  await drop(page, 'block.stl', boxStl([0, 0, 0], [20, 20, 10]))
  await expect(page.locator(verdict(0))).toHaveText('fits')
  await page.getByLabel('choose part 1, block').click()
  await page.getByRole('button', { name: 'cut', exact: true }).click()
  const plane = page.getByRole('slider', { name: 'cut of block' })
  await expect(plane).toHaveAttribute('aria-valuenow', '5')
  const box = (await plane.boundingBox())!
  await page.mouse.move(box.x + 14, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + 14, box.y + box.height / 2 - 6, { steps: 3 })
  await page.mouse.up()
  await expect(plane).not.toHaveAttribute('aria-valuenow', '5')
  await plane.focus()
  await page.keyboard.press('Shift+ArrowDown')
  await expect(page.getByLabel('block cut at')).toHaveValue('0.1')
  await page.getByRole('button', { name: 'cut', exact: true }).click()
  await expect(plane).toHaveCount(0)

  await page.getByRole('button', { name: 'span of heights' }).click()
  await expect(page.getByLabel('zone 1 height')).toHaveValue('5')
  await page.getByRole('button', { name: 'top of zone zone 1' }).focus()
  await page.keyboard.press('ArrowUp')
  await expect(page.getByLabel('zone 1 height')).toHaveValue('6')

  await page.getByRole('button', { name: 'paint marks' }).click()
  await page.getByLabel('what is painted').selectOption('seam')
  const space = page.getByRole('application', { name: 'Pictorial view' })
  const part = (await space.locator('.part circle').boundingBox())!
  await page.mouse.move(part.x + part.width / 2, part.y + part.height / 2)
  await page.mouse.down()
  await page.mouse.move(part.x + part.width / 2 + 2, part.y + part.height / 2 + 2, { steps: 2 })
  await page.mouse.up()
  const marks = async () => {
    const id = page.url().split('/').at(-1)!
    const { document } = (await (await page.request.get(`/api/trials/${id}`)).json()) as {
      document: { parts: { marks?: { use?: string; wanted: boolean }[] }[] }
    }
    return document.parts[0]!.marks?.map(({ use, wanted }) => `${use} ${wanted}`)
  }
  await expect.poll(marks).toEqual(['seam true'])
})

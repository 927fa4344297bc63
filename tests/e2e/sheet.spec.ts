import { expect, test } from './server'

test('a keep-out is drawn by dragging, its corner pulled, and taken back', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Dunlin' }).click()
  await expect(page.getByText('Nothing to say against this card.')).toBeVisible()
  await page.getByRole('button', { name: 'draw a keep-out' }).click()
  await page.evaluate(() => document.fonts.ready)
  // the fill's box: Playwright's own takes in the stroke and its mitres
  const plan = await page.locator('.plan .bed').evaluate((bed) => bed.getBoundingClientRect().toJSON() as DOMRect)
  const scale = plan.width / 180
  const at = (x: number, y: number) => [plan.x + x * scale, plan.y + plan.height - y * scale] as const
  await page.mouse.move(...at(40, 100))
  await page.mouse.down()
  await page.mouse.move(...at(70, 120), { steps: 5 })
  await page.mouse.up()
  const row = page.locator('[data-pointer="/envelope/keepOuts/3"]')
  await row.getByRole('button').first().click()
  await expect(row.getByLabel('keep-out 4 left edge')).toHaveValue('40')
  await expect(row.getByLabel('keep-out 4 width')).toHaveValue('30')
  await expect(row.getByLabel('keep-out 4 depth')).toHaveValue('20')

  await page.mouse.move(...at(70, 120))
  await page.mouse.down()
  await page.mouse.move(...at(80, 125), { steps: 5 })
  await page.mouse.up()
  await expect(row.getByLabel('keep-out 4 width')).toHaveValue('40')
  await expect(row.getByLabel('keep-out 4 depth')).toHaveValue('25')

  await page.mouse.move(...at(20, 30))
  await expect(page.locator('[data-read-out]')).toContainText('bed 20')
  await row.getByRole('button', { name: 'Remove' }).click()
  await expect(row).toHaveCount(0)
  // the tests that follow share this card
  await expect(page.locator('[data-save=saved]')).toBeVisible()
})

test('a dimension is typed over on the drawing', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Dunlin' }).click()
  await page.locator('[data-letter=C]').click()
  await page.getByLabel('height, on the drawing').fill('6,5 in')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('region', { name: 'Schedule' }).getByLabel('height', { exact: true })).toHaveValue('165.1')
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-letter=C]')).toContainText('170')
  await expect(page.locator('[data-save=saved]')).toBeVisible()
})

test('a bed of any outline is taken from an SVG path, with the question of its unit', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'New card' }).waitFor()
  await page.keyboard.press('n')
  await page.getByRole('link', { name: 'Sheet' }).click()
  await page.getByRole('region', { name: 'Schedule' }).getByLabel('bed shape').selectOption('polygon')
  await page.locator('[data-pointer="/envelope/bed/points"]').getByRole('button', { name: 'edit' }).click()
  await page.getByRole('textbox', { name: 'corners' }).fill('M0 0H8V6H4V4H0Z')
  await expect(page.getByText('8 × 6 mm, 6 corners')).toBeVisible()
  await page.getByLabel('unit').selectOption({ label: '1 unit is 1 inch' })
  await expect(page.getByText('203.2 × 152.4 mm, 6 corners')).toBeVisible()
  await page.getByRole('button', { name: 'Take this outline' }).click()
  await expect(page.locator('[data-letter=A]')).toContainText('203.2')
  await expect(page.locator('[data-letter=B]')).toContainText('152.4')
  // the middle of an edge, dragged, makes a further corner
  const edge = (await page.locator('.plan .bed').boundingBox())!
  await page.mouse.click(edge.x + edge.width * 0.7, edge.y + edge.height * 0.4)
  const middle = (await page.locator('[data-mid="0"]').boundingBox())!
  await page.mouse.move(middle.x + 3, middle.y + 3)
  await page.mouse.down()
  await page.mouse.move(middle.x + 3, middle.y - 40, { steps: 4 })
  await page.mouse.up()
  await expect(page.locator('.schedule [data-pointer="/envelope/bed/points"]')).toContainText('7 corners')

  await page.locator('[data-pointer="/envelope/bed/points"]').getByRole('button', { name: 'edit' }).click()
  await page.getByRole('textbox', { name: 'corners' }).fill('0, 0\n10, x')
  await expect(page.getByRole('alert')).toContainText('Line 2 is not a corner')
})

for (const [size, height] of [
  [60, 60],
  [2000, 2000],
  [400, 60],
] as const)
  test(`dimension texts keep apart on a ${size} mm machine ${height} mm high`, async ({ page }) => {
    await page.goto('/')
    await page.getByRole('button', { name: 'New card' }).waitFor()
    await page.keyboard.press('n')
    await page.getByRole('link', { name: 'Sheet' }).click()
    const schedule = page.getByRole('region', { name: 'Schedule' })
    await schedule.getByLabel('width', { exact: true }).fill(String(size))
    await schedule.getByLabel('depth', { exact: true }).fill(String(size))
    await schedule.getByLabel('height', { exact: true }).fill(String(height))
    await expect(page.locator('[data-letter=C]')).toContainText(String(height))
    const boxes = await page
      .locator('.dimension text, .sheet .title, .title-block .paper')
      .evaluateAll((texts) => texts.map((text) => text.getBoundingClientRect().toJSON() as DOMRect))
    for (const [i, a] of boxes.entries())
      for (const b of boxes.slice(i + 1))
        expect(
          a.right <= b.left || b.right <= a.left || a.bottom <= b.top || b.bottom <= a.top,
          `${JSON.stringify(a)} and ${JSON.stringify(b)}`,
        ).toBe(true)
  })

test('what cannot be true of a card comes with a cure, one step of undo', async ({ page }) => {
  const dunlin = '0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01'
  const { document } = (await (await page.request.get(`/api/cards/${dunlin}`)).json()) as {
    document: { name: string; motion: { axes: object } }
  }
  document.name = 'Short of its bed'
  document.motion.axes = { ...document.motion.axes, x: { min: 0, max: 150 } }
  const made = await page.request.post('/api/cards', { data: document })
  const { id } = (await made.json()) as { id: string }
  await page.goto(`/cards/${id}`)
  const finding = page.locator('[data-rule=axis-short-of-bed]')
  await expect(finding).toContainText('X goes from 0 to 150 mm; the bed lies from 0 to 180.')
  await page.locator('[data-remedy=axis-short-of-bed]').click()
  await expect(finding).toHaveCount(0)
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(finding).toBeVisible()
})

import { computed } from './computed'
import { expect, test } from './server'

const dunlin = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01'
const cormorant = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a12'
const avocet = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a13'
const glands = '/trials/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a05'
const pairs = '/trials/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a06'

test('a body of the head is dragged on the drawing, typed over and measured by the guide', async ({ page }) => {
  await page.goto(`${cormorant}/head`)
  const underside = page.getByLabel('fan duct, N above the tip')
  await expect(underside).toHaveValue('5')
  await expect(page.getByRole('heading', { name: 'Outline of a body, from below' })).toBeVisible()

  const grip = page.locator('circle[data-grip=underside]')
  const at = await grip.evaluate((circle) => {
    const box = circle.getBoundingClientRect()
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  })
  await page.mouse.move(at.x, at.y)
  await page.mouse.down()
  await page.mouse.move(at.x, at.y - 40, { steps: 4 })
  await page.mouse.up()
  await expect(underside).not.toHaveValue('5')
  const higher = Number(await underside.inputValue())
  expect(higher).toBeGreaterThan(5)
  expect((2 * higher) % 1).toBe(0)

  // the right front corner, 10 px to the right and 14 px to the front: the view is from below, the front is up
  const corner = await page
    .locator('circle[data-grip="1"]')
    .evaluate((circle) => ((box) => ({ x: box.x + box.width / 2, y: box.y + box.height / 2 }))(circle.getBoundingClientRect()))
  await page.mouse.move(corner.x, corner.y)
  await page.mouse.down()
  await page.mouse.move(corner.x + 20, corner.y - 28, { steps: 4 })
  await page.mouse.up()
  expect(Number(await page.getByLabel('fan duct, M width').inputValue())).toBeGreaterThan(40)
  expect(Number(await page.getByLabel('fan duct, Q front edge').inputValue())).toBeLessThan(-25)

  await underside.focus()
  await expect(page.getByRole('heading', { name: 'Underside above the tip' })).toBeVisible()
  await page.locator('.dimension[data-letter=N] text').click()
  await page.getByLabel('above the tip, on the drawing').fill('5,5')
  await page.keyboard.press('Enter')
  await expect(underside).toHaveValue('5.5')
})

test('another nozzle shows what follows and which recipes no longer fit before it is taken', async ({ page }) => {
  await page.goto(`${dunlin}/head`)
  await page.getByRole('button', { name: /n1/ }).first().click()
  await page.getByRole('button', { name: 'change', exact: true }).click()
  await page.getByLabel('new bore').fill('0.8')
  await expect(page.getByText('0.48 to 1.6 mm')).toBeVisible()
  await expect(page.getByLabel('Recipes that no longer fit')).toContainText('56 % of the nozzle')
  await page.getByRole('button', { name: 'Leave it as it is' }).click()
  await expect(page.getByText('Ø 0.4, brass')).toBeVisible()
  await page.getByRole('button', { name: 'change', exact: true }).click()
  await page.getByLabel('new bore').fill('0.5')
  await page.getByRole('button', { name: 'Take the new nozzle' }).click()
  await expect(page.getByText('Ø 0.5, brass')).toBeVisible()
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(page.getByText('Ø 0.4, brass')).toBeVisible()
})

test('reach is drawn by nozzle, by set and by mode, and a mode may have a start routine of its own', async ({ page }) => {
  await page.goto(`${avocet}/reach`)
  await page.getByRole('button', { name: /^n1 and n2/ }).click()
  await expect(page.getByText('WHERE N1 AND N2 REACHES')).toBeVisible()
  await expect(page.getByRole('button', { name: /^n1 and n2/ })).toContainText('783 cm²')
  await page.getByRole('button', { name: /^mirror/ }).click()
  await page.getByRole('button', { name: 'write one of its own' }).click()
  const editor = page.getByLabel('Start routine of mirror')
  await editor.click()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.insertText('G28\n')
  await expect(page.getByText('The start routine of mirror does not set the mode (M605).')).toBeVisible()
  await page.getByRole('button', { name: "use the card's again" }).click()
  await expect(page.getByText('Reach and modes go together.')).toBeVisible()
})

test('parts are printed one at a time: the order, the worst moments, a cycle with its cure, and the program', async ({ page }) => {
  test.slow()
  await page.goto(glands)
  const order = page.getByRole('region', { name: 'Print order' })
  await expect(order).toContainText('4 → 5 → 1 → 2 → 3')
  await order.getByRole('button', { name: 'next moment' }).click()
  await expect(order).toContainText(/printing net-ring joint 2 \(5\): the fan duct passes net-ring joint 1 \(4\) at 13\.3 mm/)
  await expect(page.locator('.head-at').first()).toBeVisible()
  await order.getByRole('button', { name: 'hide' }).click()
  await expect(page.locator('.head-at')).toHaveCount(0)

  // two tall ones under one beam: neither may come first
  await page.locator('[data-part="4"]').focus()
  await page.getByRole('button', { name: 'remove' }).click()
  await page.locator('[data-part="3"]').focus()
  await page.getByRole('button', { name: 'remove' }).click()
  await page.getByLabel('choose part 1, cable gland 1').click()
  await page.getByLabel('cable gland 1 X').fill('124')
  await page.getByLabel('cable gland 1 Y').fill('66')
  await expect(order).toContainText("1, 2 stand in each other's way")
  await expect(order).toContainText('drives the beam into it')
  await order
    .getByRole('button', { name: /^Move \d by/ })
    .last()
    .click()
  await expect(order).toContainText('→')
  await page.getByRole('button', { name: 'undo' }).click()
  await page.getByLabel('cable gland 1 X').fill('56')
  await page.getByLabel('cable gland 1 Y').fill('24')
  await expect(order).toContainText('1 → 2 → 3')
  await computed(page)
  await expect(page.getByText(/^No finding/)).toBeVisible({ timeout: 60_000 })
  // each of the three has its 145 layers
  await expect(page.getByText('LAYER 1 OF 435')).toBeVisible()
})

test('a mode shows where the copy comes to lie, at a distance computed from what lies on the bed', async ({ page }) => {
  test.slow()
  await page.goto(pairs)
  await expect(page.locator('.ghost')).toHaveCount(2)
  const mode = page.getByRole('region', { name: 'Mode' })
  await expect(mode).toContainText('Copies lie 64 mm apart')
  await mode.getByLabel('copy distance').fill('200')
  await expect(page.locator('[data-verdict="0"]')).toHaveText('does not fit')
  await page.getByLabel('choose part 1, quadrat corner').click()
  await expect(page.getByText(/the copy of quadrat corner stands [\d.]+ mm beyond the usable bed/)).toBeVisible()
  await mode.getByRole('button', { name: 'use it' }).click()
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')
  await mode.getByLabel('Mode').selectOption('mirror')
  await expect(page.getByLabel('mirror image of quadrat corner')).toBeVisible()
  await mode.getByLabel('Mode').selectOption('copy')
  await expect(page.locator('[data-verdict="0"]')).toHaveText('fits')
  await computed(page)
  await expect(page.locator('.figures')).toContainText('min', { timeout: 60_000 })
  await page.getByRole('link', { name: 'Look at every line' }).click()
  await expect(page.getByText('M605 S2 X64 R0').first()).toBeVisible()
})

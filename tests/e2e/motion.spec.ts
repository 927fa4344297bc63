import { expect, test } from './server'

const kittiwake = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a11'
const avocet = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a13'

test('steps per mm are entered, computed from the parts and measured, and a difference is said', async ({ page }) => {
  await page.goto(`${avocet}/motion`)
  await page.getByRole('button', { name: /^Z/ }).click()
  await page.getByRole('button', { name: /^X/ }).click()
  await page.getByLabel('X, steps per mm, entered').fill('40')
  await expect(page.getByText('X has 40 steps per mm; its parts give 80. With 1/8 microsteps they would agree.')).toBeVisible()
  await page.getByLabel('X, measured').fill('50,2')
  await page.getByRole('button', { name: 'note it' }).click()
  await expect(page.getByText(/which is 1\/16 microsteps/)).toBeVisible()
  await page.getByRole('button', { name: 'use it' }).click()
  await expect(page.getByLabel('X, steps per mm, entered')).toHaveValue('80')
  await expect(page.getByText('Drives and heaters go together.')).toBeVisible()
})

test('the ladder follows the drive of Z, and a log tells where the bed ends', async ({ page }) => {
  await page.goto(`${avocet}/motion`)
  await expect(page.getByText('a full step of Z is 0.04 mm')).toBeVisible()
  await page.getByLabel('Z, starts').fill('1')
  await expect(page.getByText('a full step of Z is 0.01 mm')).toBeVisible()
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(page.getByText('a full step of Z is 0.04 mm')).toBeVisible()

  await page.getByRole('button', { name: /^bed/ }).click()
  const log = page.getByLabel('heat-up log of the bed')
  await log.fill('0 20\n60 30\n120 abc')
  await expect(page.getByText('Line 3 does not hold two numbers.')).toBeVisible()
  // T∞ 80, τ 200 s, rounded to a tenth
  const points = [0, 60, 120, 200, 300, 400, 600, 800, 1000].map((s) => `${s}\t${(80 - 60 * Math.exp(-s / 200)).toFixed(1)}`)
  await log.fill(points.join('\n'))
  await expect(page.getByText(/It ends at (79\.9|80|80\.1) °C .* time constant of (199|200|201) s/)).toBeVisible()
  await expect(page.getByText('The bed is rated to 100 °C and ends at 80 in a room of 20.')).toBeVisible()
})

test("a firmware's settings report is laid beside the card, and what is chosen is taken with its source", async ({ page }) => {
  await page.goto(`${kittiwake}/motion`)
  await page.getByRole('button', { name: 'take from a settings report' }).click()
  await page
    .getByLabel('settings report')
    .fill('echo: M92 X100.00 Y100.00 Z100.00 E93.00\necho: M665 L217.00 R104.50 S80\necho: M301 P22 I1 D114')
  await expect(page.getByText(/control values stay in the firmware/)).toBeVisible()
  await page.getByLabel('take steps per mm E').uncheck()
  await page.getByRole('button', { name: 'Take 6 facts' }).click()
  await page.getByRole('button', { name: /^X/ }).click()
  await expect(page.getByLabel('X, steps per mm, entered')).toHaveValue('100')
  await page.getByRole('button', { name: /^arms and towers/ }).click()
  await expect(page.getByLabel('arm length')).toHaveValue('217')
  await expect(page.getByText(/reach 99\.4 mm/)).toBeVisible()
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(page.getByText(/reach 97 mm/)).toBeVisible()
})

test('a screw is asked for its starts, and the ladder waits for the answer', async ({ page }) => {
  await page.goto('/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a11/motion')
  await page.getByLabel('Z, driven by').selectOption('screw')
  await expect(page.getByText(/The screw of Z with a pitch of 2 mm moves 2 mm \(one start\) or 8 mm \(four starts\) a turn/)).toBeVisible()
  await expect(page.getByText('the ladder of layer heights is drawn once')).toBeVisible()
  const question = page.getByRole('group', { name: 'How many starts has the thread?' })
  await question.getByRole('button', { name: /four starts/ }).click()
  await expect(question).toHaveCount(0)
  await expect(page.getByText('a full step of Z is 0.04 mm')).toBeVisible()
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(question).toBeVisible()
  await page.getByRole('button', { name: 'undo' }).click()
})

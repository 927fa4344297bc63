import { expect, test } from './server'

const kittiwake = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a11'
const cormorant = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a12'

test('every line says what it does, a stop is marked, its remedy taken and undone', async ({ page }) => {
  await page.goto(`${kittiwake}/routines`)
  const editor = page.getByRole('textbox', { name: 'Start routine' })
  await expect(page.getByText('waits for the bed').first()).toBeVisible()
  const before = await editor.innerText()
  await editor.fill('G1 X5 F3000\nG28\nM109 S{{ heat.nozzle }}\n')
  const finding = page.locator('[data-rule=move-before-home]')
  await expect(finding).toContainText('before it is homed')
  await finding.getByRole('button', { name: 'Home first' }).click()
  await expect(finding).toHaveCount(0)
  await expect(editor).toContainText('G28G1 X5 F3000')
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(finding).toBeVisible()

  // an unknown name is said with the nearest one
  await editor.fill('M104 S{{ heat.nozle }}\n')
  await expect(page.locator('[data-rule=broken-routine]')).toContainText('Did you mean heat.nozzle?')
  await page.locator('[data-remedy=broken-routine]').click()
  await expect(editor).toContainText('M104 S{{ heat.nozzle }}')
  await editor.fill(before)
  await expect(page.locator('[data-save=saved]')).toBeVisible()
})

test('one cursor runs through code, effect, chart and plan', async ({ page }) => {
  await page.goto('/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01/routines')
  await page.getByRole('listitem').filter({ hasText: 'prints 140 mm' }).click()
  await expect(page.locator('.cm-activeLine')).toContainText('E11')
  await expect(page.locator('.shown .moved')).toHaveAttribute('d', /^M.*L/)
  await expect(page.locator('.shown .cursor-line')).toHaveCount(1)
  await expect(page.getByText('X 160 Y 4 Z 0.24')).toBeVisible()
})

test('names are completed with their values, commands with their help', async ({ page }) => {
  await page.goto('/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a13/routines?moment=beforeLayer')
  const editor = page.getByRole('textbox', { name: 'Before layer routine' })
  await editor.click()
  await page.keyboard.type('M10')
  await expect(page.locator('.cm-tooltip-autocomplete')).toContainText('Heat the nozzle, do not wait')
  await page.keyboard.press('Escape')
  await page.keyboard.type('4 S{{ heat.no')
  await expect(page.locator('.cm-tooltip-autocomplete')).toContainText('heat.nozzle')
  await page.keyboard.press('Control+a')
  await page.keyboard.press('Delete')
  await expect(page.locator('[data-save=saved]')).toBeVisible()
})

test('a passage is inserted, and a macro stepped into', async ({ page }) => {
  await page.goto(`${cormorant}/routines?line=3`)
  await expect(page.getByRole('region', { name: 'Inside the macro' })).toContainText('waits for the bed')
  await page.getByRole('button', { name: 'insert a passage' }).click()
  await page.locator('[data-passage=prime-line]').click()
  await expect(page.getByRole('textbox', { name: 'Start routine' })).toContainText('clear of every keep-out')
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(page.getByRole('textbox', { name: 'Start routine' })).not.toContainText('clear of every keep-out')
  await page.getByRole('textbox', { name: 'Start routine' }).fill('BEGIN_JOB BED=60\n')
  await expect(page.locator('[data-rule=unknown-macro]')).toContainText('Did you mean JOB_BEGIN?')
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(page.locator('[data-save=saved]')).toBeVisible()
})

test('routines are carried to another flavour as a redline', async ({ page }) => {
  await page.goto(`${kittiwake}/routines`)
  await page.getByRole('button', { name: 'more' }).click()
  await page.getByRole('menuitem', { name: /carry to another flavour/ }).click()
  await page.getByLabel('flavour', { exact: true }).selectOption('klipper')
  await expect(page.locator('tr[data-carried]').first()).toBeVisible()
  await expect(page.getByText('There it waits while hotter, too.').first()).toBeVisible()
  await page.getByRole('button', { name: 'Leave it as it is' }).click()
})

test('a program that prints is learned from, old and new side by side', async ({ page }) => {
  await page.goto(`${kittiwake}/routines`)
  await page.getByRole('button', { name: 'more' }).click()
  await page.getByRole('menuitem', { name: /learn from/ }).click()
  const rounds = Array.from({ length: 20 }, (_, z) =>
    Array.from({ length: 10 }, (_, i) => `G1 X${(i % 2) * 40 - 20} Y${i} Z${((z + 1) * 0.25).toFixed(2)} E1.3 F2400`).join('\n'),
  ).join('\nG1 E-4 F2400\nG1 E4\n')
  const gcode = `M104 S205\nG28\nM109 S205\nM83\n${rounds}\nM104 S0\n`
  await page.locator('[data-learn-file]').setInputFiles({ name: 'ring.gcode', mimeType: 'text/plain', buffer: Buffer.from(gcode) })
  await expect(page.locator('[data-learned="/routines/start"] .after')).toContainText('M109 S{{ heat.nozzle }}')
  await expect(page.locator('[data-learned="/head/nozzles/0/retraction/length"] .after')).toHaveText('4 mm')
  await expect(page.locator('.learned-others li').filter({ hasText: 'layer height' }).first()).toContainText('0.25 mm')
  await page.getByRole('button', { name: 'Keep it as a filament and a recipe' }).click()
  await expect(page.getByText('Filament and recipe ring are kept')).toBeVisible()
  await page.getByLabel('take retraction', { exact: true }).check()
  await page.getByRole('button', { name: 'Take over 1' }).click()
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(page.locator('[data-save=saved]')).toBeVisible()
})

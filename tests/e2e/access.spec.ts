import AxeBuilder from '@axe-core/playwright'
import { expect, test } from './server'

const dunlin = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01'
const trial = '/trials/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a04'
const guidelines = ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']

for (const [name, address, ready] of [
  ['rack', '/', 'Dunlin'],
  ['card sheet', dunlin, 'Envelope'],
  ['measure-up', `${dunlin}/measure-up/size`, 'question 1'],
  ['what follows', `${dunlin}/measure-up/summary`, 'Parts may be'],
  ['head', `${dunlin}/head`, 'HEAD FROM THE FRONT'],
  ['reach and modes', '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a13/reach', 'two materials'],
  ['gauge pieces', '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a12/gauges', 'Steps cube'],
  ['motion and heat', '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a12/motion', 'LADDER OF LAYER HEIGHTS'],
  ['routines', `${dunlin}/routines`, 'warm together'],
  ['line', `${dunlin}/line`, 'Where it answers'],
  ['revisions and prints', `${dunlin}/history`, 'Real prints'],
  ['trials', `${dunlin}/trials`, 'Float clamps'],
  ['trial', trial, 'fits'],
  ['print order', '/trials/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a05', '4 → 5'],
  ['dry run', `${trial}/run`, 'bring a G-code file'],
  ['filaments and recipes', '/stock', 'fits with cautions'],
  ['filament', '/filaments/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a07', 'Nozzle temperatures'],
  ['bin and archive', '/bin', 'Put away'],
  ['take in', '/take-in', 'nothing is taken before you say so'],
  ['pattern sources', '/pattern-sources', 'comes with Mill Card'],
  ['redline', `${dunlin}/redline?with=revision.A`, 'differences'],
  ['handbook', '/handbook/rules', 'missing fact'],
  ['recipe', '/recipes/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a08', 'Ladder and flow'],
] as const)
  test(`${name}: nothing serious against WCAG 2.2 AA, in ink and in chalk`, async ({ page }) => {
    await page.goto(address)
    await expect(page.getByText(ready).first()).toBeVisible()
    for (const colorScheme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme })
      await expect(page.locator(`[data-scheme=${colorScheme}]`)).toBeAttached()
      const axe = new AxeBuilder({ page })
      // in chalk nothing but the colours is another
      const asked = colorScheme === 'light' ? axe.withTags(guidelines) : axe.withRules(['color-contrast'])
      const { violations } = await asked.analyze()
      const serious = violations.filter((violation) => violation.impact === 'serious' || violation.impact === 'critical')
      expect(serious.map((violation) => `${violation.id}: ${violation.nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`)).toEqual(
        [],
      )
    }
  })

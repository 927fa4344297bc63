import { spawn } from 'node:child_process'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { expect, test } from './server'

const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..')
const avocet = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a13'
const dunlin = '/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01'

/** The stand-in on a port of its own choosing. */
async function standIn(card: string) {
  const printer = spawn(
    'dotnet',
    [
      join(root, 'src/MillCard.StandIn/bin/Release/net10.0/MillCard.StandIn.dll'),
      '--cards',
      join(root, 'demo/cards'),
      '--card',
      card,
      '--port',
      '0',
      '--speed',
      '500',
    ],
    { stdio: ['ignore', 'pipe', 'inherit'] },
  )
  const port = await new Promise<string>((found) =>
    printer.stdout.on('data', (data: Buffer) => {
      const match = /127\.0\.0\.1:(\d+)/.exec(data.toString())
      if (match) found(match[1]!)
    }),
  )
  return { port, end: () => printer.kill() }
}

test('a line is tested, a program sent, and a dead heater shown at its line', async ({ page, request }) => {
  test.slow()
  const printer = await standIn('dunlin')
  try {
    const trial = '0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a04'
    const gcode = [
      'G28',
      'M83',
      'M104 S200',
      'M109 S200',
      ...Array.from({ length: 300 }, (_, i) => `G1 X${20 + (i % 100)} Y40 Z0.3 F3000`),
      'M104 S0',
      'M84',
    ].join('\n')
    await page.goto(`${dunlin}/line`)
    await request.put(`/api/trials/${trial}/run/program?name=short.gcode`, { data: gcode, headers: { 'content-type': 'text/x.gcode' } })
    await page.getByLabel('host').fill('127.0.0.1')
    await page.getByLabel('port').fill(printer.port)
    await expect(page.locator('[data-save=saved]')).toBeVisible()
    await page.getByRole('button', { name: 'Test the line' }).click()
    await expect(page.locator('[data-tested]')).toContainText('It matches the card.')
    await expect(page.locator('[data-connected=true]')).toBeVisible()
    await page.getByLabel('trial').selectOption(trial)
    await page.getByRole('button', { name: 'Send', exact: true }).click()
    await expect(page.locator('[data-job=done]')).toBeVisible({ timeout: 30_000 })

    const panel = page.getByRole('region', { name: 'Stand-in' })
    await panel.getByLabel('fault').selectOption('DEAD_HEATER')
    await panel.getByRole('button', { name: 'Switch' }).click()
    await expect(page.getByRole('region', { name: 'Talk' })).toContainText('DEAD_HEATER')
    await page.getByRole('button', { name: 'Send', exact: true }).click()
    await expect(page.locator('[data-job=stopped]')).toContainText('Heating failed')
    await expect(page.locator('.error-line')).toContainText('M109 S200')
    await page.getByLabel('port').fill('7421')
    await page.getByLabel('host').fill('stand-in')
    await expect(page.getByLabel('port')).toBeDisabled()
    await expect(page.locator('[data-save=saved]')).toBeVisible()
  } finally {
    printer.end()
  }
})

test('a revision is held against the draft: one difference is taken over, with what follows from it, and given back', async ({ page }) => {
  await page.goto('/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a11/history')
  await page.locator('[data-revision=A]').getByRole('link', { name: 'redline' }).click()
  await expect(page.getByText('2 differences')).toBeVisible()
  const flow = page.getByRole('row', { name: /melting limit/ })
  await expect(flow).toContainText('9 mm³/s')
  await expect(flow).toContainText('8 mm³/s')
  await flow.getByRole('checkbox').check()
  await expect(page.getByRole('region', { name: 'What follows' })).toContainText(/finding|Appears|Goes/)
  await page.getByRole('button', { name: 'take over 1' }).click()
  await expect(page.getByText('One difference', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'undo' }).click()
  await expect(page.getByText('2 differences')).toBeVisible()
  await page.getByLabel('Held against').selectOption({ label: 'Dunlin' })
  await expect(page.getByRole('table', { name: 'Envelope' })).toContainText('left clip')
})

test('a revision is fixed, gone back to, and a print noted', async ({ page, request }) => {
  const trial = { schema: 'mill-card/trial/1', name: 'not sliced yet', card: avocet.split('/').at(-1), parts: [] }
  const { id } = (await (await request.post('/api/trials', { data: trial })).json()) as { id: string }
  await page.goto(`${avocet}/history`)
  await page.getByLabel('note').fill('as delivered')
  await page.getByRole('button', { name: 'Fix the draft as a revision' }).click()
  const revision = page.locator('[data-revision=B]')
  await expect(revision).toContainText('the draft is the same')
  // a trial that was never sliced proves nothing
  await revision.getByLabel('stamp with a trial').selectOption(id)
  await expect(page.getByText('slice it first')).toBeVisible()

  await page.getByLabel('outcome').selectOption('flawed')
  await page.getByLabel('how it came out').fill('second copy a little thin')
  await page.getByRole('button', { name: 'Note it' }).click()
  await expect(page.locator('[data-print=flawed]')).toContainText('second copy a little thin')
  await page.getByRole('button', { name: 'strike out' }).click()
  await expect(page.locator('[data-print]')).toHaveCount(0)
})

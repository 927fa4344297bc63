import { expect, type Page } from '@playwright/test'

/** A trial without parts on a card of the demo. */
export async function openTrial(page: Page, card = 'Dunlin') {
  await page.goto('/')
  await page.getByRole('link', { name: card }).click()
  await page.getByRole('link', { name: 'Trials' }).click()
  await page.getByRole('button', { name: 'Open a trial' }).click()
  await expect(page.getByText('Drop a file here: STL, 3MF, OBJ, AMF')).toBeVisible()
}

/** Drops a file onto the bed. */
export const drop = (page: Page, name: string, content: Buffer) => dropAll(page, [[name, content]])

/** Drops files together. */
export async function dropAll(page: Page, files: [string, Buffer][]) {
  const transfer = await page.evaluateHandle(
    (all) => {
      const transfer = new DataTransfer()
      for (const [name, base64] of all) {
        const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))
        transfer.items.add(new File([bytes], name))
      }
      return transfer
    },
    files.map(([name, content]) => [name, content.toString('base64')] as const),
  )
  await page.dispatchEvent('main', 'drop', { dataTransfer: transfer })
}

/** A box as a binary STL: from its least corner, with its size, mm. */
export function boxStl([x, y, z]: [number, number, number], [w, d, h]: [number, number, number]): Buffer {
  const corner = (i: number) => [x + (i & 1 ? w : 0), y + (i & 2 ? d : 0), z + (i & 4 ? h : 0)]
  const sides = [
    [0, 2, 3, 1],
    [4, 5, 7, 6],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 4, 6, 2],
    [1, 3, 7, 5],
  ]
  const faces = sides.flatMap(([a, b, c, e]) => [
    [a!, b!, c!],
    [a!, c!, e!],
  ])
  const file = Buffer.alloc(84 + 50 * faces.length)
  file.writeUInt32LE(faces.length, 80)
  faces.forEach((face, f) =>
    face.forEach((i, k) => corner(i).forEach((value, axis) => file.writeFloatLE(value, 84 + 50 * f + 12 + 12 * k + 4 * axis))),
  )
  return file
}

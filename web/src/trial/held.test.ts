import { expect, it } from 'vitest'
import type { TrialPart } from '../api/client'
import { isHeld, tiltedAs } from './held'

const part = (x: number, more: Partial<TrialPart> = {}): TrialPart => ({ name: 'a', file: 'h', x, y: 0, ...more })

it('knows a part by its id, wherever it stands now', () => {
  const held = { part: part(1, { id: 'k' }), index: 0 }
  expect([part(5), part(7, { id: 'k' }), part(1, { id: 'l' })].map(isHeld(held))).toEqual([false, true, false])
})

it('knows a part that has no id yet by its place, and takes no other for it', () =>
  expect([part(1), part(1), part(1, { id: 'k' })].map(isHeld({ part: part(1), index: 1 }))).toEqual([false, true, false]))

it('takes over how a part is tilted, and keeps where it was moved meanwhile', () => {
  const asked = [{ part: part(10, { id: 'a', lift: 2 }), index: 0 }]
  const made = [part(13, { id: 'a', lift: 0, turn: 30, tilt: { x: 0, y: 90 } })]
  expect(tiltedAs(part(14, { id: 'a', lift: 2, name: 'renamed' }), asked, made, 0)).toEqual(
    part(17, { id: 'a', lift: 0, turn: 30, tilt: { x: 0, y: 90 }, name: 'renamed' }),
  )
  const other = part(14, { id: 'b' })
  expect(tiltedAs(other, asked, made, 0)).toBe(other)
})

import fc from 'fast-check'
import { expect, it } from 'vitest'
import { border } from '../drawing/Frame'
import { toX, toY } from '../drawing/view'
import { sheetLayout, side } from './sheetLayout'

const sizes = fc.tuple(
  fc.integer({ min: 700, max: 2600 }),
  fc.integer({ min: 560, max: 1500 }),
  fc.integer({ min: 40, max: 900 }),
  fc.integer({ min: 40, max: 900 }),
  fc.integer({ min: 40, max: 1200 }),
)

it('draws plan and elevation to one scale, one over the other', () =>
  fc.assert(
    fc.property(sizes, ([w, h, width, depth, height]) => {
      const { plan, front } = sheetLayout(w, h, width, depth, height)
      expect(plan.scale).toBe(front.scale)
      expect(plan.x0).toBe(front.x0)
      // the floor of the elevation stands above the back edge of the plan, with room for dimensions between
      expect(toY(plan, depth) - toY(front, 0)).toBeCloseTo(40, 6)
    }),
  ))

it('keeps both within the frame and clear of the column at the right', () =>
  fc.assert(
    fc.property(sizes, ([w, h, width, depth, height]) => {
      const { plan, front, right } = sheetLayout(w, h, width, depth, height)
      expect(right).toBe(w - border - side)
      expect(toX(plan, 0)).toBeGreaterThanOrEqual(border)
      expect(toX(plan, width)).toBeLessThanOrEqual(right + 1e-6)
      expect(toY(front, height)).toBeGreaterThanOrEqual(border)
      expect(toY(plan, 0)).toBeLessThanOrEqual(h - border + 1e-6)
    }),
  ))

it('uses the room that there is: the scale is as large as width or height allows', () =>
  fc.assert(
    fc.property(sizes, ([w, h, width, depth, height]) => {
      const larger = sheetLayout(w + 400, h + 400, width, depth, height)
      expect(larger.plan.scale).toBeGreaterThan(sheetLayout(w, h, width, depth, height).plan.scale)
    }),
  ))

it('stacks the column: head, ladder of paper sizes, names', () =>
  fc.assert(
    fc.property(sizes, ([w, h, width, depth, height]) => {
      const { headHeight, a4Top, a4Height, names } = sheetLayout(w, h, width, depth, height)
      expect(headHeight).toBeLessThanOrEqual(110)
      expect(a4Top).toBeGreaterThan(border + headHeight)
      expect(a4Height).toBeGreaterThanOrEqual(60)
      expect(names[0]).toBeGreaterThan(a4Top + a4Height)
    }),
  ))

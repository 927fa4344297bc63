import fc from 'fast-check'
import { expect, it } from 'vitest'
import {
  directionsOf,
  dot,
  fitted,
  isometric,
  nearer,
  onLevel,
  onPlane,
  pictured,
  shifted,
  turned,
  upright,
  type Look,
  type XYZ,
} from './look'

const look: Look = { ...isometric, scale: 2, target: [0, 0, 0] }
const angles = fc.record({
  azimuth: fc.double({ min: 0, max: 360, noNaN: true }),
  elevation: fc.double({ min: -60, max: 90, noNaN: true }),
})

it('looks along three directions at right angles, right-handed', () =>
  fc.assert(
    fc.property(angles, (from) => {
      const { right, up, toward } = directionsOf(from)
      for (const [a, b] of [
        [right, up],
        [up, toward],
        [toward, right],
      ] as const)
        expect(dot(a, b)).toBeCloseTo(0, 9)
      const across: XYZ = [right[1] * up[2] - right[2] * up[1], right[2] * up[0] - right[0] * up[2], right[0] * up[1] - right[1] * up[0]]
      expect(dot(across, toward)).toBeCloseTo(1, 9)
    }),
  ))

// ISO 5456-3: in isometric axonometry the axes lie 120 degrees apart and are foreshortened alike, by the root of two thirds
it('is isometric', () => {
  const ends = (
    [
      [10, 0, 0],
      [0, 10, 0],
      [0, 0, 10],
    ] as const
  ).map((end) => pictured(look, end, 0, 0))
  for (const [x, y] of ends) expect(Math.hypot(x, y)).toBeCloseTo(20 * Math.sqrt(2 / 3), 9)
  const directions = ends.map(([x, y]) => (Math.atan2(-y, x) * 180) / Math.PI)
  expect(directions[0]).toBeCloseTo(-30, 9)
  expect(directions[1]).toBeCloseTo(30, 9)
  expect(directions[2]).toBeCloseTo(90, 9)
})

it('is the plan from above and the elevation from the front', () => {
  expect(pictured({ ...look, azimuth: 0, elevation: 90 }, [3, 4, 5], 100, 100)).toEqual([56, expect.closeTo(42, 9) as number])
  expect(pictured({ ...look, azimuth: 0, elevation: 0 }, [3, 4, 5], 100, 100)).toEqual([56, expect.closeTo(40, 9) as number])
})

it('shows all of a box', () =>
  fc.assert(
    fc.property(angles, fc.tuple(...[1, 2, 3].map(() => fc.double({ min: 1, max: 400, noNaN: true }))), (from, size) => {
      const found = fitted(from, size as unknown as XYZ, { width: 300, height: 200 })
      for (let corner = 0; corner < 8; corner++) {
        const at = size.map((side, axis) => (corner & (1 << axis) ? side : 0)) as unknown as XYZ
        const [x, y] = pictured(found, at, 300, 200)
        expect(Math.min(x, 300 - x, y, 200 - y)).toBeGreaterThan(17.9)
      }
    }),
  ))

it('comes nearer about the pointer, and moves with it', () => {
  const under = (l: Look) => pictured(l, [12, 7, 3], 300, 200)
  const at = under(look)
  expect(under(nearer(look, 1.7, at, 300, 200))).toEqual(at.map((v) => expect.closeTo(v, 9) as number))
  expect(under(shifted(look, 11, -6))).toEqual([expect.closeTo(at[0] + 11, 9) as number, expect.closeTo(at[1] - 6, 9) as number])
})

it('never turns over', () => {
  expect(turned(look, -50, 200)).toMatchObject({ azimuth: 355, elevation: 90 })
  expect(turned(look, 0, -200).elevation).toBe(-60)
})

it('moves a point over the level plane by what the pointer went', () =>
  fc.assert(
    fc.property(angles, fc.integer({ min: -300, max: 300 }), fc.integer({ min: -300, max: 300 }), (from, dx, dy) => {
      const own = { ...look, ...from }
      fc.pre(Math.abs(Math.sin((from.elevation * Math.PI) / 180)) > 0.06)
      const [before, after] = [pictured(own, [0, 0, 0], 100, 100), pictured(own, [...onLevel(own, dx, dy), 0], 100, 100)]
      expect(after[0] - before[0]).toBeCloseTo(dx, 6)
      expect(after[1] - before[1]).toBeCloseTo(dy, 6)
    }),
  ))

it('lifts a point by what the pointer went up, and not where it is seen from above', () => {
  const [before, after] = [pictured(look, [0, 0, 0], 100, 100), pictured(look, [0, 0, upright(look, -30)], 100, 100)]
  expect(after[1] - before[1]).toBeCloseTo(-30, 6)
  expect(upright({ ...look, elevation: 90 }, -30)).toBe(0)
  expect(onLevel({ ...look, elevation: 0 }, 10, 10)).toEqual([0, 0])
})

it('moves a point over any plane by what the pointer went, and over none that is seen edge on', () => {
  const gone = onPlane(look, [0, 1, 0], [0, 0, 1], 40, -25)!
  const [before, after] = [pictured(look, [3, 4, 5], 100, 100), pictured(look, [3, 4 + gone[0], 5 + gone[1]], 100, 100)]
  expect(after[0] - before[0]).toBeCloseTo(40, 6)
  expect(after[1] - before[1]).toBeCloseTo(-25, 6)
  expect(onPlane({ ...look, azimuth: 0, elevation: 0 }, [0, 1, 0], [0, 0, 1], 40, -25)).toBeUndefined()
})

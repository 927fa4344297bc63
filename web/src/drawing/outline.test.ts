import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Outline } from '../api/client'
import { bedOutline, bedSize, boxOf, outlineBox, outlinePath, reshapedOutline, ringsPath } from './outline'
import { fitted, fromX, fromY, senseY, toX, toY, type View } from './view'

const view: View = { scale: 2, x0: 100, y0: 400 }

/** The points that an SVG path of straight pieces passes, whether its commands are absolute or relative. */
function pointsOf(path: string): [number, number][] {
  const found: [number, number][] = []
  let [x, y] = [0, 0]
  for (const [, command, rest] of path.matchAll(/([MLhvZ])([^MLhvZ]*)/g)) {
    const numbers = rest!.trim().split(/\s+/).filter(Boolean).map(Number)
    if (command === 'h') x += numbers[0]!
    else if (command === 'v') y += numbers[0]!
    else if (command !== 'Z') [x, y] = numbers as [number, number]
    if (command !== 'Z') found.push([x, y])
  }
  return found
}

describe('paths of outlines', () => {
  it('draws a rectangle where it stands, its back edge on top', () =>
    expect(pointsOf(outlinePath({ shape: 'rectangle', x: 10, y: 20, width: 30, depth: 50 }, view))).toEqual([
      [120, 260],
      [180, 260],
      [180, 360],
      [120, 360],
    ]))

  it('draws it the other way round from below', () =>
    expect(pointsOf(outlinePath({ shape: 'rectangle', x: 10, y: 20, width: 30, depth: 50 }, { ...view, fromBelow: true }))[0]).toEqual([
      120, 440,
    ]))

  it('draws a circle as two arcs about its middle', () =>
    expect(outlinePath({ shape: 'circle', x: 10, y: 20, radius: 5 }, view)).toBe('M110 360a10 10 0 0 1 20 0a10 10 0 0 1 -20 0Z'))

  it('draws an ellipse as wide and as deep as it is', () =>
    expect(outlinePath({ shape: 'ellipse', x: 0, y: 0, width: 40, depth: 20 }, view)).toBe('M100 380a40 20 0 0 1 80 0a40 20 0 0 1 -80 0Z'))

  it('draws every ring of an area', () =>
    expect(
      ringsPath(
        [
          [
            [0, 0],
            [10, 0],
            [0, 10],
          ],
          [
            [1, 1],
            [2, 1],
            [1, 2],
          ],
        ],
        view,
      ),
    ).toBe('M100 400L120 400L100 380ZM102 398L104 398L102 396Z'))

  it('writes no more than hundredths of a pixel', () =>
    expect(outlinePath({ shape: 'rectangle', x: 1 / 3, y: 0, width: 1, depth: 1 }, view)).toBe('M100.67 398h2v2h-2Z'))
})

describe('beds', () => {
  it('is as large as it says, or as its points', () => {
    expect(bedSize({ shape: 'rectangle', width: 180, depth: 160 })).toEqual({ width: 180, depth: 160 })
    expect(
      bedSize({
        shape: 'polygon',
        points: [
          [-5, 2],
          [7, 2],
          [0, 12],
        ],
      }),
    ).toEqual({ width: 12, depth: 10 })
    expect(bedSize(undefined)).toEqual({})
  })

  it('has no outline before it has both sizes', () => {
    expect(bedOutline({ shape: 'rectangle', width: 180 } as never)).toBeUndefined()
    expect(bedOutline(null)).toBeUndefined()
    expect(bedOutline({ shape: 'ellipse', width: 180, depth: 160 })).toEqual({ shape: 'ellipse', x: 0, y: 0, width: 180, depth: 160 })
  })
})

const outlines: fc.Arbitrary<Outline> = fc.oneof(
  fc.record({
    shape: fc.constant('rectangle' as const),
    x: fc.integer({ min: -200, max: 200 }),
    y: fc.integer({ min: -200, max: 200 }),
    width: fc.integer({ min: 1, max: 300 }),
    depth: fc.integer({ min: 1, max: 300 }),
  }),
  fc.record({
    shape: fc.constant('circle' as const),
    x: fc.integer({ min: -200, max: 200 }),
    y: fc.integer({ min: -200, max: 200 }),
    radius: fc.integer({ min: 1, max: 100 }),
  }),
)

describe('outlines of another shape', () => {
  it('cover the same place as rectangle and as polygon', () =>
    fc.assert(
      fc.property(outlines, fc.constantFrom('rectangle' as const, 'polygon' as const), (outline, shape) => {
        expect(outlineBox(reshapedOutline(outline, shape))).toEqual(outlineBox(outline))
      }),
    ))

  it('lie within and have the same middle as a circle', () =>
    fc.assert(
      fc.property(outlines, (outline) => {
        const [before, after] = [outlineBox(outline), outlineBox(reshapedOutline(outline, 'circle'))]
        expect(after.width).toBe(Math.min(before.width, before.depth))
        expect(after.x + after.width / 2).toBeCloseTo(before.x + before.width / 2, 9)
        expect(after.y + after.depth / 2).toBeCloseTo(before.y + before.depth / 2, 9)
      }),
    ))
})

describe('views', () => {
  it('show the whole of a plane within its box, in the middle', () =>
    fc.assert(
      fc.property(outlines, fc.integer({ min: 50, max: 900 }), fc.integer({ min: 50, max: 900 }), (outline, width, height) => {
        const plane = outlineBox(outline)
        const found = fitted(plane, { x: 30, y: 40, width, height })
        const [left, right] = [toX(found, plane.x), toX(found, plane.x + plane.width)]
        const [bottom, top] = [toY(found, plane.y), toY(found, plane.y + plane.depth)]
        expect(left).toBeGreaterThanOrEqual(30 - 1e-6)
        expect(right).toBeLessThanOrEqual(30 + width + 1e-6)
        expect(top).toBeGreaterThanOrEqual(40 - 1e-6)
        expect(bottom).toBeLessThanOrEqual(40 + height + 1e-6)
        expect(left + right).toBeCloseTo(60 + width, 6)
        expect(top + bottom).toBeCloseTo(80 + height, 6)
        expect(Math.min(width - (right - left), height - (bottom - top))).toBeCloseTo(0, 6)
      }),
    ))

  it('lead back from the screen, from above and from below', () =>
    fc.assert(
      fc.property(fc.integer({ min: -300, max: 300 }), fc.integer({ min: -300, max: 300 }), fc.boolean(), (x, y, fromBelow) => {
        const turned = { ...view, fromBelow }
        expect(fromX(turned, toX(turned, x))).toBeCloseTo(x, 9)
        expect(fromY(turned, toY(turned, y))).toBeCloseTo(y, 9)
        expect(Math.sign(toY(turned, 1) - toY(turned, 0))).toBe(senseY(turned))
      }),
    ))

  it('never divide by nothing', () =>
    expect(fitted({ x: 0, y: 0, width: 1e9, depth: 1e9 }, { x: 0, y: 0, width: 1, height: 1 }).scale).toBe(1e-4))
})

it('boxes points', () => expect(boxOf([[3, -1], [-2, 8], [0, 0]])).toEqual([-2, -1, 3, 8])) // prettier-ignore

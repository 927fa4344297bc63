import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { layerAt, timeAxis } from './timeAxis'

describe('a print along time', () => {
  it('gives what is short room to be read, and the rest to the layers', () => {
    const axis = timeAxis(30, 3500, 3600, 900, 100)
    expect(axis.ends).toEqual([0, 100, 800, 900])
    expect(axis.x(15)).toBe(50)
    expect(axis.x((30 + 3500) / 2)).toBe(450)
    expect(axis.x(3550)).toBe(850)
  })

  it('keeps to time where everything is long enough', () => {
    const axis = timeAxis(1200, 2400, 3600, 900, 100)
    expect([0, 600, 1200, 1800, 2400, 3600].map(axis.x)).toEqual([0, 150, 300, 450, 600, 900])
  })

  it('leads there and back', () =>
    fc.assert(
      fc.property(
        fc.tuple(fc.integer({ min: 0, max: 9000 }), fc.integer({ min: 1, max: 90_000 }), fc.integer({ min: 0, max: 9000 })),
        fc.double({ min: 0, max: 1, noNaN: true }),
        ([before, laying, after], share) => {
          const total = before + laying + after
          const axis = timeAxis(before, before + laying, total, 800, 90)
          const seconds = before + share * laying
          expect(axis.at(axis.x(seconds))).toBeCloseTo(seconds, 4)
          expect(axis.x(seconds)).toBeGreaterThanOrEqual(axis.ends[1] - 1e-9)
          expect(axis.x(seconds)).toBeLessThanOrEqual(axis.ends[2] + 1e-9)
        },
      ),
    ))

  it('knows which layer is laid', () => {
    const starts = [10, 20, 20, 35]
    expect([0, 10, 15, 20, 34.9, 35, 99].map((s) => layerAt(starts, s))).toEqual([-1, 0, 0, 2, 2, 3, 3])
    expect(layerAt([], 5)).toBe(-1)
  })
})

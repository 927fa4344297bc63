import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { MeshFacts, TrialPart } from '../api/client'
import { placedOutline } from './placement'
import { asAdded, fellowsOf, moved, scaled, turned } from './together'

const mesh = { hash: 'h', outline: [[[-15, -5], [15, -5], [15, 5], [-15, 2]]] } as unknown as MeshFacts // prettier-ignore
const part = (x: number, y: number, more: Partial<TrialPart> = {}): TrialPart => ({ name: 'a', file: 'h', x, y, ...more })
const sign = [part(10, 10, { assembly: 's' }), part(50, 50), part(30, 10, { assembly: 's', turn: 20, lift: 2 })]

describe('what belongs together', () => {
  it('is what has the same word', () => {
    expect(fellowsOf(sign, 0)).toEqual([0, 2])
    expect(fellowsOf(sign, 1)).toEqual([1])
  })

  it('moves and rises as one', () => {
    const after = moved(sign, [2], 1, -2, 3)
    expect(after.map(({ x, y, lift }) => [x, y, lift])).toEqual([[11, 8, 3], [50, 50, undefined], [31, 8, 5]]) // prettier-ignore
  })

  it('keeps every distance when it is turned', () =>
    fc.assert(
      fc.property(fc.integer({ min: -360, max: 360 }), (degrees) => {
        const corners = (parts: TrialPart[]) => [0, 2].flatMap((i) => placedOutline(mesh, parts[i]!)[0]!)
        const [before, after] = [corners(sign), corners(turned(sign, [mesh, mesh, mesh], 0, degrees))]
        for (let i = 1; i < before.length; i++) {
          const apart = (all: readonly (readonly [number, number])[]) => Math.hypot(all[i]![0] - all[0]![0], all[i]![1] - all[0]![1])
          expect(apart(after)).toBeCloseTo(apart(before), 2)
        }
      }),
    ))

  it('keeps its shape when it is scaled', () =>
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 5, noNaN: true }), (by) => {
        const [a, b] = [0, 2].map((i) => sign[i]!) as [TrialPart, TrialPart]
        const after = scaled(sign, 2, by)
        const [c, d] = [after[0]!, after[2]!]
        expect((d.x ?? 0) - (c.x ?? 0)).toBeCloseTo(by * ((b.x ?? 0) - (a.x ?? 0)), 2)
        expect((d.lift ?? 0) - (c.lift ?? 0)).toBeCloseTo(by * ((b.lift ?? 0) - (a.lift ?? 0)), 2)
        expect(c.lift).toBe(0)
        expect(((c.x ?? 0) + (d.x ?? 0)) / 2).toBeCloseTo(20, 2)
        expect(c.scale?.z).toBeCloseTo(by, 4)
        expect(after[1]).toBe(sign[1])
      }),
    ))

  it('scales a part of its own where it stands, however high', () => {
    const [alone] = scaled([part(7, 8, { lift: -2, scale: { x: 2, y: 1, z: 3, mirrored: true } })], 0, 1.5)
    expect(alone).toMatchObject({ x: 7, y: 8, lift: -2, scale: { x: 3, y: 1.5, z: 4.5, mirrored: true } })
  })

  it('turns a part of its own about itself', () =>
    expect(turned(sign, [mesh, mesh, mesh], 1, -30)[1]).toMatchObject({ x: 50, y: 50, turn: 330 }))

  it('belongs to nobody else after it was copied', () => {
    const copy = asAdded(sign)
    expect(copy[0]!.assembly).toBe(copy[2]!.assembly)
    expect(copy[0]!.assembly).not.toBe('s')
    expect(copy[1]!.assembly).toBeUndefined()
  })
})

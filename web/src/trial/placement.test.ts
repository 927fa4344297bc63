import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { MeshFacts } from '../api/client'
import { boxOf } from '../drawing/outline'
import { partsOf, placedOutline, scaleOf } from './placement'

const bed = { shape: 'rectangle', width: 180, depth: 160 } as const
const mesh = (more: Partial<MeshFacts> = {}) =>
  ({ hash: 'h', outline: [[[0, 0], [30, 0], [30, 10], [0, 10]]], ...more }) as unknown as MeshFacts // prettier-ignore

const places = fc.integer({ min: -50, max: 250 })

describe('a part where it stands', () => {
  it('has its middle at its place, however it is turned', () =>
    fc.assert(
      fc.property(places, places, fc.integer({ min: -360, max: 720 }), (x, y, turn) => {
        const [ring] = placedOutline(mesh(), { name: 'a', file: 'h', x, y, turn })
        const [minX, minY, maxX, maxY] = boxOf(ring!)
        expect((minX + maxX) / 2).toBeCloseTo(x, 6)
        expect((minY + maxY) / 2).toBeCloseTo(y, 6)
      }),
    ))

  it('turns counter-clockwise', () => {
    const [ring] = placedOutline(mesh(), { name: 'a', file: 'h', x: 0, y: 0, turn: 90 })
    const corners = ring!.map(([x, y]) => [Math.round(x) + 0, Math.round(y) + 0])
    expect(corners).toEqual([[5, -15], [5, 15], [-5, 15], [-5, -15]]) // prettier-ignore
  })

  it('has no outline where the mesh has none', () =>
    expect(placedOutline(mesh({ outline: [] }), { name: 'a', file: 'h', x: 1, y: 2, turn: 0 })).toEqual([]))

  it('keeps its size where none is said', () => {
    expect(scaleOf({ name: 'a', file: 'h' })).toEqual({ x: 1, y: 1, z: 1, mirrored: false })
    expect(scaleOf({ name: 'a', file: 'h', scale: { x: 2, z: 0.5 } })).toEqual({ x: 2, y: 1, z: 0.5, mirrored: false })
  })
})

describe('parts of a file', () => {
  it('lie in the middle of the bed under the name of the file', () =>
    expect(partsOf('cable-gland_m20.stl', [mesh()], bed)).toEqual([{ name: 'cable gland m20', file: 'h', x: 90, y: 80, turn: 0 }]))

  it('keep their places to each other, their middle in the middle of the bed', () => {
    const parts = partsOf('set.3mf', [mesh({ at: [10, 20, 3] }), mesh({ at: [50, 0, 5], name: 'lid' }), mesh({ at: [30, 40, 3] })], bed)
    expect(parts.map(({ name }) => name)).toEqual(['set 1', 'lid', 'set 3'])
    expect(parts.map(({ x, y, lift }) => [x, y, lift])).toEqual([[70, 80, 0], [110, 60, 2], [90, 100, 0]]) // prettier-ignore
    expect(new Set(parts.map(({ assembly }) => assembly)).size).toBe(1)
    expect(parts[0]!.assembly).toBeTruthy()
  })

  it('have a name whatever the file is called', () => {
    expect(partsOf('.stl', [mesh()], bed)[0]!.name).toBe('part')
    expect(partsOf(`${'x'.repeat(300)}.stl`, [mesh()], bed)[0]!.name).toHaveLength(180)
    expect(partsOf('a.b.stl', [mesh()], bed)[0]!.name).toBe('a.b')
  })

  it('lie at zero where the bed is not known yet', () => expect(partsOf('a.stl', [mesh()], undefined)[0]).toMatchObject({ x: 0, y: 0 }))
})

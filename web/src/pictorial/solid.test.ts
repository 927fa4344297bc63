import fc from 'fast-check'
import { expect, it } from 'vitest'
import { edgesOf, placing, readSolid, stood } from './solid'

const upright = { scale: { x: 1, y: 1, z: 1, mirrored: false }, tilt: { x: 0, y: 0 } }

it('reads what the server writes', () => {
  const file = new DataView(new ArrayBuffer(20 + 36 + 12 + 16 + 4))
  'MCS1'.split('').forEach((c, i) => file.setUint8(i, c.charCodeAt(0)))
  ;[3, 1, 1, 7].forEach((v, i) => file.setInt32(4 + 4 * i, v, true))
  ;[0, 0, 0, 1, 0, 0, 0, 1, 0].forEach((v, i) => file.setFloat32(20 + 4 * i, v, true))
  ;[0, 1, 2].forEach((v, i) => file.setInt32(56 + 4 * i, v, true))
  ;[0, 1, 0, -1].forEach((v, i) => file.setInt32(68 + 4 * i, v, true))
  file.setInt32(84, 5, true)
  expect(readSolid(file.buffer)).toEqual({
    corners: new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0]),
    faces: new Int32Array([0, 1, 2]),
    edges: new Int32Array([0, 1, 0, -1]),
    facesOfFile: 7,
    numbers: new Int32Array([5]),
  })
  expect(readSolid(file.buffer.slice(0, 84)).numbers).toBeUndefined()
  expect(() => readSolid(new ArrayBuffer(24))).toThrow(/draw/)
})

it('scales, mirrors, and tilts about X before Y', () => {
  const of = (stance: Partial<typeof upright>) => [...stood(new Float32Array([1, 2, 3]), { ...upright, ...stance })]
  expect(of({ scale: { x: 2, y: 3, z: 4, mirrored: false } })).toEqual([2, 6, 12])
  expect(of({ scale: { x: 2, y: 3, z: 4, mirrored: true } })).toEqual([-2, 6, 12])
  expect(of({ tilt: { x: 90, y: 0 } })).toEqual([1, -3, 2])
  expect(of({ tilt: { x: 0, y: 90 } })).toEqual([3, 2, -1])
  expect(of({ tilt: { x: 90, y: 90 } })).toEqual([2, -3, -1])
})

it('puts the middle of the turned box at its place and its lowest point at its height', () =>
  fc.assert(
    fc.property(
      fc.array(fc.tuple(...[1, 2, 3].map(() => fc.integer({ min: -50, max: 50 }))), { minLength: 1, maxLength: 9 }),
      fc.integer({ min: -400, max: 400 }),
      (points, turn) => {
        const corners = new Float32Array(points.flat())
        const { sin, cos, dx, dy, dz } = placing(corners, { x: 30, y: 40, z: 5, turn })
        const xs = points.map(([x, y]) => cos * x! - sin * y! + dx)
        const ys = points.map(([x, y]) => sin * x! + cos * y! + dy)
        expect((Math.min(...xs) + Math.max(...xs)) / 2).toBeCloseTo(30, 3)
        expect((Math.min(...ys) + Math.max(...ys)) / 2).toBeCloseTo(40, 3)
        expect(Math.min(...points.map(([, , z]) => z! + dz))).toBeCloseTo(5, 3)
      },
    ),
  ))

it('gives every edge the normals of both its sides; an open one breaks off', () => {
  const corners = new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1])
  const { ends, left, right } = edgesOf(corners, new Int32Array([0, 1, 2, 0, 3, 1]), new Int32Array([0, 1, 0, 1, 1, 2, 0, -1]))
  expect([...ends]).toEqual([0, 0, 0, 1, 0, 0, 1, 0, 0, 0, 1, 0])
  expect([...left.slice(0, 6)].map(Math.round)).toEqual([0, 0, 1, 0, 0, 1])
  expect([...right.slice(0, 6)].map((v) => Math.round(v) + 0)).toEqual([0, 1, 0, 0, 1, 0])
  expect([...right.slice(6)].map((v) => Math.round(v) + 0)).toEqual([0, 0, -1, 0, 0, -1])
})

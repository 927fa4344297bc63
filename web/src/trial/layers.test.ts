import { expect, it } from 'vitest'
import { readLayers } from './layers'

it('reads what the server writes', () => {
  const file = new DataView(new ArrayBuffer(8 + 12 + 12 + 24))
  'MCL1'.split('').forEach((c, i) => file.setUint8(i, c.charCodeAt(0)))
  file.setInt32(4, 1, true)
  file.setFloat32(8, 0.25, true)
  file.setFloat32(12, 0.25, true)
  file.setInt32(16, 1, true)
  file.setUint8(20, 1)
  file.setUint8(21, 1)
  file.setFloat32(24, 0.5, true)
  file.setInt32(28, 3, true)
  ;[0, 0, 10, 0, 10, 10].forEach((v, i) => file.setFloat32(32 + 4 * i, v, true))
  expect(readLayers(file.buffer)).toEqual([
    { top: 0.25, height: 0.25, paths: [{ kind: 'outer wall', closed: true, width: 0.5, points: new Float32Array([0, 0, 10, 0, 10, 10]) }] },
  ])
})

it('refuses what is something else', () => expect(() => readLayers(new ArrayBuffer(16))).toThrow())

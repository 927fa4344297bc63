import { expect, it } from 'vitest'
import kinds from '../../../src/MillCard.Core/Slicing/Paths/PathKind.cs?raw'
import { pathKinds, readLayers } from './layers'

it('names the kinds of lines in the order of the server', () => {
  const members = /enum PathKind : byte\s*\{([^}]*)\}/.exec(kinds)![1]!.matchAll(/(?:\[Word\("(.*)"\)\] )?(\w+),\n/g)
  const spelled = [...members].map(([, word, name]) => word ?? name!.replace(/(?<=[a-z])(?=[A-Z])/g, ' ').toLowerCase())
  expect(pathKinds).toEqual(spelled)
})

it('refuses a kind that it does not know', () => {
  const file = new DataView(new ArrayBuffer(8 + 12 + 12))
  'MCL1'.split('').forEach((c, i) => file.setUint8(i, c.charCodeAt(0)))
  file.setInt32(4, 1, true)
  file.setInt32(16, 1, true)
  file.setUint8(20, pathKinds.length)
  expect(() => readLayers(file.buffer)).toThrow(/kind/)
})

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

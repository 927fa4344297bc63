import { expect, it } from 'vitest'
import kinds from '../../../src/MillCard.Core/Slicing/Paths/PathKind.cs?raw'
import { pathKinds, readLayers } from './layers'

it('names the kinds of lines in the order of the server', () => {
  const members = /enum PathKind : byte\s*\{([^}]*)\}/.exec(kinds)![1]!.matchAll(/(?:\[Word\("(.*)"\)\] )?(\w+),\n/g)
  const spelled = [...members].map(([, word, name]) => word ?? name!.replace(/(?<=[a-z])(?=[A-Z])/g, ' ').toLowerCase())
  expect(pathKinds).toEqual(spelled)
})

const head = (paths: number) => {
  const file = new DataView(new ArrayBuffer(8 + 16 + 36 + 8 + 24 + 16))
  'MCL3'.split('').forEach((c, i) => file.setUint8(i, c.charCodeAt(0)))
  file.setInt32(4, 1, true)
  file.setInt32(20, paths, true)
  return file
}

it('refuses a kind that it does not know', () => {
  const file = head(1)
  file.setUint8(24, pathKinds.length)
  expect(() => readLayers(file.buffer)).toThrow(/kind/)
})

it('reads what the server writes', () => {
  const file = head(1)
  ;[0.25, 0.25, 12.5].forEach((v, i) => file.setFloat32(8 + 4 * i, v, true))
  ;[1, 1, 2, 1].forEach((v, i) => file.setUint8(24 + i, v))
  ;[0.5, 60, 5.5, 215, 0.5, 800].forEach((v, i) => file.setFloat32(28 + 4 * i, v, true))
  ;[31, 34, 2].forEach((v, i) => file.setInt32(52 + 4 * i, v, true))
  ;[7, 8, 0, 0].forEach((v, i) => file.setFloat32(64 + 4 * i, v, true))
  file.setInt32(80, 3, true)
  ;[0, 0, 10, 0, 10, 10].forEach((v, i) => file.setFloat32(84 + 4 * i, v, true))
  expect(readLayers(file.buffer)).toEqual([
    {
      top: 0.25,
      height: 0.25,
      seconds: 12.5,
      paths: [
        {
          kind: 'outer wall',
          closed: true,
          nozzle: 2,
          pulledBack: true,
          width: 0.5,
          speed: 60,
          flow: 5.5,
          temperature: 215,
          fan: 0.5,
          acceleration: 800,
          first: 31,
          last: 34,
          way: new Float32Array([7, 8, 0, 0]),
          points: new Float32Array([0, 0, 10, 0, 10, 10]),
        },
      ],
    },
  ])
})

it('refuses what is something else', () => expect(() => readLayers(new ArrayBuffer(16))).toThrow())

import { expect, it } from 'vitest'
import { countOutside, crossingsOf, shareOf, slackOf, spanOf } from './drawnBy'
import type { Layer, LayerPath } from './layers'

const path = (values: Partial<LayerPath>): LayerPath => ({
  kind: 'outer wall',
  closed: true,
  nozzle: 0,
  width: 0.4,
  speed: 50,
  flow: 5,
  temperature: 210,
  fan: 1,
  acceleration: 1000,
  pulledBack: false,
  way: new Float32Array(),
  first: 1,
  last: 5,
  points: new Float32Array([0, 0, 10, 0, 10, 10, 0, 10]),
  ...values,
})
const layer = (...paths: LayerPath[]): Layer => ({ top: 0.2, height: 0.2, seconds: 8, paths })

it('spans from the least to the greatest value', () => {
  const layers = [layer(path({ speed: 20 }), path({ speed: 80 })), { ...layer(path({ speed: 45 })), seconds: 3 }]
  expect(spanOf(layers, 'speed')).toEqual([20, 80])
  expect(spanOf(layers, 'time of layer')).toEqual([3, 8])
  expect(spanOf([], 'speed')).toBeUndefined()
})

it('brings out what lies outside a range', () => {
  expect(shareOf(50, [20, 80], undefined, 0)).toBe(0.5)
  expect(shareOf(50, [20, 80], [60, 80], 0.5)).toBeUndefined()
  expect(shareOf(59.6, [20, 80], [60, 80], 0.5)).toBeDefined()
  expect(shareOf(7, [7, 7], undefined, 0)).toBe(0.5)
  const layers = [layer(path({ flow: 2 }), path({ flow: 5 }), path({ flow: 9 }))]
  expect(countOutside(layers, 'flow', [4, 9])).toBe(1)
  expect(countOutside(layers, 'flow', [2 + 2 * slackOf('flow'), 8])).toBe(2)
})

it('finds travels over a wall that pull nothing back', () => {
  const over = new Float32Array([5, 5, 15, 5])
  const inside = new Float32Array([2, 2, 8, 8])
  const crossings = (way: Float32Array, pulledBack = false) => crossingsOf(layer(path({}), path({ kind: 'infill', way, pulledBack })))
  expect(crossings(over)).toEqual([[5, 5, 15, 5]])
  expect(crossings(over, true)).toEqual([])
  expect(crossings(inside)).toEqual([])
  // the side that closes the ring counts too
  expect(crossings(new Float32Array([5, 5, -5, 5]))).toHaveLength(1)
})

import { expect, it } from 'vitest'
import type { RunLine } from '../api/client'
import type { Layer, LayerPath } from './layers'
import { firstLines, laidOf, layerOf, nextMove, pathAt, tipAfter } from './step'

const move = (line: number, from: [number, number], to: [number, number], z = 1): RunLine => ({
  line,
  text: 'G1',
  start: line,
  seconds: 1,
  effect: '',
  path: [...from, z, ...to, z],
})
const still = (line: number): RunLine => ({ ...move(line, [0, 0], [0, 0]), path: null })
const known = (...lines: RunLine[]) => new Map(lines.map((line) => [line.line, line]))
const path = (first: number, last: number, nozzle = 0) => ({ first, last, nozzle }) as LayerPath
const layer = (...paths: LayerPath[]) => ({ paths }) as Layer

it('finds the layer of a line, the first for what comes before', () => {
  const firsts = firstLines([layer(path(10, 20)), layer(), layer(path(40, 50))])
  expect(firsts).toEqual([10, 10, 40])
  expect([1, 10, 39, 40, 99].map((line) => layerOf(firsts, line))).toEqual([0, 1, 1, 2, 2])
})

it('steps to the next line that moves, over those that do not, and to the edge of what is known', () => {
  const lines = known(move(4, [0, 0], [1, 0]), still(5), still(6), move(7, [1, 0], [2, 0]), still(8))
  expect(nextMove(lines, 4, 1, 100)).toBe(7)
  expect(nextMove(lines, 7, -1, 100)).toBe(4)
  expect(nextMove(lines, 7, 1, 100)).toBe(8)
  expect(nextMove(lines, 4, -1, 100)).toBe(4)
  expect(nextMove(lines, 7, 1, 7)).toBe(7)
})

it('knows where the nozzle is after a line on which nothing moves', () => {
  const lines = known(move(4, [0, 0], [1, 3], 0.6), still(5), still(6))
  expect(tipAfter(lines, 6)).toEqual([1, 3, 0.6])
  expect(tipAfter(known(still(6)), 6)).toBeUndefined()
})

it('tells the line of plastic under way, and how far it has come', () => {
  const own = layer(path(4, 6, 1), path(9, 12))
  expect(pathAt(own, 3)).toBeUndefined()
  expect(pathAt(own, 8)?.nozzle).toBe(1)
  expect(pathAt(own, 9)?.first).toBe(9)
  const lines = known(move(4, [0, 0], [1, 0]), still(5), move(6, [1, 0], [1, 2]), move(7, [1, 2], [9, 9]))
  expect(laidOf(path(4, 6), lines, 5)).toEqual([0, 0, 1, 0])
  expect(laidOf(path(4, 6), lines, 7)).toEqual([0, 0, 1, 0, 1, 2])
  expect(laidOf(path(3, 6), lines, 6)).toEqual([])
  expect(laidOf(undefined, lines, 6)).toEqual([])
})

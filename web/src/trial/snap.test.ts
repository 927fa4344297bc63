import { expect, it } from 'vitest'
import { gapsOf, snapped, type Box } from './snap'

const bed = { width: 200, depth: 160 }
const box: Box = [10, 10, 30, 20]

it('snaps an edge to an edge of another, and the middle to that of the bed', () => {
  expect(snapped(box, [18.7, 3.3], [[50, 60, 70, 90]], bed, 2, 0.5)).toEqual([20, 3.5])
  expect(snapped(box, [79.2, 64.2], [], bed, 2, 0.5)).toEqual([80, 65])
  // left to left, and middle to middle
  expect(snapped(box, [41, 59], [[50, 60, 70, 90]], bed, 2, 1)).toEqual([40, 60])
})

it('lies on the grid where nothing is near', () => expect(snapped(box, [3.26, -1.74], [], bed, 0, 0.5)).toEqual([3.5, -1.5]))

it('measures to what is nearest on each side', () => {
  const gaps = gapsOf(box, [[45, 12, 60, 40], [2, 60, 40, 80], [12, 26, 14, 30]], bed) // prettier-ignore
  expect(gaps.left).toEqual({ distance: 10, from: 0, to: 10 })
  expect(gaps.right).toEqual({ distance: 15, from: 30, to: 45 })
  expect(gaps.back).toEqual({ distance: 6, from: 20, to: 26 })
  expect(gaps.front.distance).toBe(10)
})

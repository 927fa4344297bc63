import { expect, it } from 'vitest'
import { bedOutline, outlineBox } from './outline'
import { spread } from './spread'
import { fitted, fromX, fromY, gridStep, toX, toY } from './view'

it('fits a plane into a box and finds the way back', () => {
  const view = fitted({ x: 0, y: 0, width: 180, depth: 160 }, { x: 100, y: 50, width: 360, height: 400 })
  expect(view.scale).toBe(2)
  expect([toX(view, 0), toY(view, 160)]).toEqual([100, 90])
  expect([fromX(view, toX(view, 33)), fromY(view, toY(view, 77))]).toEqual([33, 77])
})

it('keeps labels apart and between the ends', () => {
  expect(spread([10, 12, 90], 16, 0, 100)).toEqual([10, 26, 90])
  expect(spread([95, 96, 97], 16, 0, 100)).toEqual([68, 84, 100])
  expect(spread([], 16, 0, 100)).toEqual([])
})

it('chooses a grid that can be read', () => expect([gridStep(2.5), gridStep(0.3), gridStep(40)]).toEqual([10, 100, 1]))

it('knows the box of every outline', () => {
  expect(outlineBox({ shape: 'circle', x: 10, y: 20, radius: 5 })).toEqual({ x: 5, y: 15, width: 10, depth: 10 })
  expect(
    outlineBox({
      shape: 'polygon',
      points: [
        [1, 2],
        [4, 2],
        [4, 8],
      ],
    }),
  ).toEqual({ x: 1, y: 2, width: 3, depth: 6 })
})

it('moves a polygon bed into its own frame', () =>
  expect(
    bedOutline({
      shape: 'polygon',
      points: [
        [-5, -5],
        [5, -5],
        [0, 5],
      ],
    }),
  ).toEqual({
    shape: 'polygon',
    points: [
      [0, 0],
      [10, 0],
      [5, 10],
    ],
  }))

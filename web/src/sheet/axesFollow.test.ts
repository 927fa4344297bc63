import { expect, it } from 'vitest'
import type { Card } from '../api/client'
import { withValue } from '../open-document/pointer'
import { followed, following } from './axesFollow'

const card: Card = {
  schema: 'mill-card/card/1',
  envelope: { bed: { shape: 'rectangle', width: 180, depth: 160 }, origin: { x: 0, y: 0 }, height: 170, keepOuts: [] },
  motion: { axes: { x: { min: 0, max: 180 }, y: { min: -5, max: 160 }, z: { min: 0, max: 170 } } },
}
const wider = withValue(card, '/envelope/bed/width', 200)

it('asks of axes that covered the bed, and of no others', () => {
  expect(following(card, card)).toEqual([])
  expect(following(card, wider)).toEqual([{ axis: 'X', runs: [0, 180], would: [0, 200] }])
  // Y ran past the edge before: it is its owner's
  expect(following(card, withValue(card, '/envelope/bed/depth', 170))).toEqual([])
  expect(following(card, withValue(card, '/envelope/height', 150))).toEqual([
    { axis: 'Z', runs: [undefined, 170], would: [undefined, 150] },
  ])
})

it('moves both ends with the origin and is silent once done or touched', () => {
  const centred = withValue(card, '/envelope/origin', { x: 90, y: 80 })
  const axes = following(card, centred)
  expect(axes).toEqual([{ axis: 'X', runs: [0, 180], would: [-90, 90] }])
  const done = followed(centred, axes)
  expect(done.motion?.axes?.x).toEqual({ min: -90, max: 90 })
  expect(following(card, done)).toEqual([])
  expect(following(card, withValue(wider, '/motion/axes/x/max', 190))).toEqual([])
})

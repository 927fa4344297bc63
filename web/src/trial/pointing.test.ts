import { expect, it } from 'vitest'
import { painted } from './pointing'

const part = { name: 'a', file: 'h', marks: [{ wanted: true, faces: [1, 2, 3] }, { wanted: false, faces: [7] }] } // prettier-ignore
const after = (faces: number[], mark: 'wanted' | 'unwanted' | 'none') => painted(part, new Set(faces), mark).marks

it('adds to the mark of the same kind and takes from the other', () => {
  expect(after([3, 4], 'wanted')).toEqual([{ wanted: true, faces: [1, 2, 3, 4] }, { wanted: false, faces: [7] }]) // prettier-ignore
  expect(after([2, 7], 'unwanted')).toEqual([{ wanted: true, faces: [1, 3] }, { wanted: false, faces: [2, 7] }]) // prettier-ignore
})

it('wipes marks away, and whole ones with their last face', () => {
  expect(after([7], 'none')).toEqual([{ wanted: true, faces: [1, 2, 3] }])
  expect(after([1, 2, 3, 7], 'none')).toEqual([])
})

it('begins a mark where there is none', () =>
  expect(painted({ name: 'a', file: 'h' }, new Set([5]), 'unwanted').marks).toEqual([{ wanted: false, faces: [5] }]))

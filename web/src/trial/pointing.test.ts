import { expect, it } from 'vitest'
import { painted, type Paint } from './pointing'

// marks made before seams could be painted say nothing of their use
const part = { name: 'a', file: 'h', marks: [{ wanted: true, faces: [1, 2, 3] }, { wanted: false, faces: [7] }] } // prettier-ignore
const after = (faces: number[], mark: Paint) => painted(part, new Set(faces), mark).marks

it('adds to the mark of the same kind and takes from the other', () => {
  expect(after([3, 4], 'support')).toEqual([{ wanted: true, faces: [1, 2, 3, 4] }, { wanted: false, faces: [7] }]) // prettier-ignore
  expect(after([2, 7], 'no support')).toEqual([
    { wanted: true, faces: [1, 3] },
    { use: 'support', wanted: false, faces: [2, 7] },
  ])
})

it('wipes marks away, and whole ones with their last face', () => {
  expect(after([7], 'none')).toEqual([{ wanted: true, faces: [1, 2, 3] }])
  expect(after([1, 2, 3, 7], 'none')).toEqual([])
})

it('begins a mark where there is none', () =>
  expect(painted({ name: 'a', file: 'h' }, new Set([5]), 'no support').marks).toEqual([{ use: 'support', wanted: false, faces: [5] }]))

it('paints seams beside supports on the same faces', () => {
  const seamed = painted(part, new Set([1, 7]), 'seam')
  expect(seamed.marks).toEqual([...part.marks, { use: 'seam', wanted: true, faces: [1, 7] }])
  expect(painted(seamed, new Set([1]), 'no seam').marks?.slice(2)).toEqual([
    { use: 'seam', wanted: true, faces: [7] },
    { use: 'seam', wanted: false, faces: [1] },
  ])
  expect(painted(seamed, new Set([1, 7]), 'none').marks).toEqual([{ wanted: true, faces: [2, 3] }])
})

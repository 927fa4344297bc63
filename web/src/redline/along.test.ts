import { expect, test } from 'vitest'
import { withAlong } from './along'

const height = { path: ['envelope', 'height'], mine: 130, theirs: 120 }
const version = { path: ['pattern', 'version'], mine: 1, theirs: 2 }
const all = [height, version]

test('the version of a pattern is remembered with whatever is taken of it', () => {
  expect(withAlong('pattern.works:reed@2', [height], all)).toEqual([height, version])
  expect(withAlong('pattern.works:reed@2', [version], all)).toEqual([version])
  expect(withAlong('pattern.works:reed@2', all, all)).toEqual(all)
})

test('nothing is taken where nothing is picked', () => expect(withAlong('pattern.works:reed@2', [], all)).toEqual([]))

test('of another card or a file nothing is taken but what is picked', () => {
  for (const against of ['document.01', 'file.a.json', 'revision.A', 'saved', 'kept.1'])
    expect(withAlong(against, [height], all)).toEqual([height])
})

import { expect, it } from 'vitest'
import { tagsOf } from './AboutFields'

it('reads words by commas, each once, none empty', () => {
  expect(tagsOf(' boat,  salt water ,,boat, ')).toEqual(['boat', 'salt water'])
  expect(tagsOf('')).toEqual([])
  expect(tagsOf(Array.from({ length: 30 }, (_, i) => `t${i}`).join())).toHaveLength(20)
})

import { expect, it } from 'vitest'
import { changesBetween, merged } from './merge'

const base = { name: 'Dunlin', bed: { width: 180, depth: 160 }, clips: [{ x: 0 }, { x: 168 }] }

it('finds what was changed', () => {
  expect(changesBetween(base, { ...base, bed: { width: 200, depth: 160 } })).toEqual([{ pointer: '/bed/width', value: 200 }])
  expect(changesBetween(base, { ...base, clips: [{ x: 0 }, { x: 170 }] })).toEqual([{ pointer: '/clips/1/x', value: 170 }])
  expect(changesBetween(base, { ...base, clips: [] })).toEqual([{ pointer: '/clips', value: [] }])
  expect(changesBetween(base, structuredClone(base))).toEqual([])
})

it('keeps what both sides typed', () => {
  const mine = { ...base, bed: { width: 200, depth: 160 } }
  const theirs = { ...base, name: 'Dunlin II', bed: { width: 180, depth: 165 } }
  expect(merged(base, mine, theirs)).toEqual({ ...base, name: 'Dunlin II', bed: { width: 200, depth: 165 } })
})

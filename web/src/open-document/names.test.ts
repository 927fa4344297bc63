import { describe, expect, it } from 'vitest'
import { nameOf, shown } from './names'

const card = {
  envelope: { keepOuts: [{ id: 'k', name: 'clip' }] },
  head: { nozzles: [{ id: 'T1', diameter: 0.4 }] },
  fans: ['part'],
}
const limits = (pointer: string) => (pointer === '/head/nozzles/0/diameter' ? { label: 'bore' } : {})

describe('names of values', () => {
  it.each([
    [['envelope', 'keepOuts', '@k', 'top'], 'clip, top'],
    [['head', 'nozzles', '@T1', 'diameter'], 'nozzles T1, bore'],
    [['head', 'nozzles', '@T1'], 'nozzles T1'],
    [['envelope', 'keepOuts'], 'keep outs'],
    [['motion', 'axes', 'x', 'maxSpeed'], 'X axis, max speed'],
    [['motion', 'axes', 'x'], 'x'],
    [['fans', '@part'], 'part'],
    [['sources', '/head/nozzles/0/diameter'], 'source of bore'],
    [[], 'the whole document'],
  ])('%j is %s', (path, name) => expect(nameOf(path, [card], limits)).toBe(name))

  it('are taken from the first document that has them', () =>
    expect(nameOf(['envelope', 'keepOuts', '@k'], [{}, card], limits)).toBe('clip'))
})

describe('values in sentences', () => {
  it.each([
    [undefined, undefined, 'not there'],
    [null, undefined, 'not there'],
    [0.4, 'mm', '0.4 mm'],
    [3, undefined, '3'],
    [true, undefined, 'yes'],
    [false, undefined, 'no'],
    ['', undefined, 'empty'],
    ['word', 'mm', 'word'],
    ['x'.repeat(100), undefined, `${'x'.repeat(79)}…`],
    [[1, 2, 3], undefined, '3 entries'],
    [{ id: 'k', name: 'clip', keepTop: 4, inner: {} }, undefined, 'name clip, keep top 4'],
  ])('%j is shown', (value, unit, text) => expect(shown(value, unit)).toBe(text))
})

import { describe, expect, it } from 'vitest'
import { parseEntry } from './entry'
import { clockTime, duration, plain } from './format'
import { refusal } from './limits'

describe('entry of numbers', () => {
  it.each([
    ['180', 180],
    ['12,5', 12.5],
    ['10 in', 254],
    ['10"', 254],
    ['284-2*7', 270],
    ['(3 + 4) / 2', 3.5],
    ['-3', -3],
    ['2 - -3', 5],
    ['1 cm + 2 mm', 12],
    ['45 %', 0.45],
    ['.5', 0.5],
    ['0.1+0.2', 0.3],
  ])('%s is %d', (text, value) => expect(parseEntry(text)).toMatchObject({ value }))

  it.each(['', 'abc', '12 parsecs', '(3', '3)', '4 4', '1/0', '5..2', '('.repeat(80)])('refuses %s', (text) =>
    expect(parseEntry(text)).toHaveProperty('error'),
  )

  it('tells when the value was computed', () => {
    expect(parseEntry('12')).toEqual({ value: 12, computed: false })
    expect(parseEntry('-12')).toEqual({ value: -12, computed: false })
    expect(parseEntry('1 in')).toEqual({ value: 25.4, computed: true })
  })
})

describe('limits', () => {
  const width = { label: 'bed width', unit: 'mm', above: 0, most: 2000 }
  it('says what is allowed', () => expect(refusal(0, width)).toBe('Bed width must be above 0 and at most 2000 mm; 0 is not.'))
  it('lets the rest through', () => expect(refusal(2000, width)).toBeUndefined())
  it('knows whole numbers', () => expect(refusal(1.5, { label: 'walls', whole: true })).toBe('Walls is a whole number.'))
})

describe('numbers as text', () => {
  it('leaves out what says nothing', () =>
    expect([plain(180), plain(0.1 + 0.2), plain(-0.0001), plain(100)]).toEqual(['180', '0.3', '0', '100']))
  it('times', () =>
    expect([duration(48), duration(2192), duration(6961), clockTime(292), clockTime(3727)]).toEqual([
      '48 s',
      '36 min 32 s',
      '1 h 56 min',
      '4:52',
      '1:02:07',
    ]))
})

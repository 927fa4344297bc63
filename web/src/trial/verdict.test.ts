import { describe, expect, it } from 'vitest'
import type { Finding, PartFit, RunResult } from '../api/client'
import { misfitOf, verdictOf } from './verdict'

const fit = (fits: boolean) => ({ fits }) as PartFit
const finding = (rule: string, severity: Finding['severity'], more: Partial<Finding> = {}): Finding => ({
  rule,
  severity,
  message: `${rule}.`,
  why: '',
  ...more,
})
const result = (...findings: Finding[]) => ({ findings }) as unknown as RunResult

describe('the verdict on a trial', () => {
  it('is good only where everything was looked at and is so', () => {
    expect(verdictOf([fit(true), fit(true)], 2, result())).toEqual({
      words: 'Fits, prints, ends safe',
      worst: undefined,
      first: undefined,
      open: 0,
    })
    expect(verdictOf(undefined, 1, result())).toMatchObject({ words: 'Fit not known yet, prints, ends safe', worst: 'caution' })
    expect(verdictOf([fit(true)], 2, result())).toMatchObject({ words: 'Fit not known yet, prints, ends safe', worst: 'caution' })
    expect(verdictOf([fit(true)], 1, result(finding('unknown-macro', 'note')))).toMatchObject({
      words: 'Fits, prints, ends safe, as far as it can be seen',
      worst: undefined,
      open: 1,
    })
  })

  it('counts what speaks against it, and tells the end apart', () => {
    const two = result(finding('cold-extrusion', 'stop'), finding('tower-cost', 'note'))
    expect(verdictOf([fit(true)], 1, two)).toMatchObject({ words: 'Fits, must not be printed: 1 stop, ends safe', worst: 'stop', open: 2 })
    expect(verdictOf([fit(true)], 1, result(finding('bed-left-on', 'caution')))).toMatchObject({
      words: 'Fits, prints, does not end safe',
      worst: 'caution',
    })
    expect(verdictOf([fit(true)], 1, result(finding('a', 'caution'), finding('b', 'caution'))).words).toBe(
      'Fits, prints with 2 cautions, ends safe',
    )
  })

  it('leaves out what somebody has accepted', () => {
    const accepted = result(finding('fan-left-on', 'caution', { accepted: 'it cools the hot end' }), finding('b', 'note'))
    expect(verdictOf([fit(true)], 1, accepted)).toMatchObject({ words: 'Fits, prints, ends safe', worst: undefined, open: 1 })
    expect(verdictOf([fit(true)], 1, accepted).first?.rule).toBe('b')
  })

  it('says how many parts do not fit', () => {
    expect(misfitOf([fit(true)], 1)).toBeUndefined()
    expect(misfitOf(undefined, 1)).toBeUndefined()
    expect(misfitOf([fit(false)], 1)).toBe('Does not fit')
    expect(misfitOf([fit(false), fit(true), fit(false)], 3)).toBe('2 of 3 parts do not fit')
    expect(verdictOf([fit(false), fit(true)], 2, result())).toMatchObject({
      words: '1 of 2 parts do not fit, prints, ends safe',
      worst: 'stop',
    })
  })
})

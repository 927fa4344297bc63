import { describe, expect, it } from 'vitest'
import { following, namedById, namedByPlace, pathOf, pointerAt } from './place'

const nozzle = (id: string, diameter = 0.4) => ({ id, diameter })
const card = {
  head: { nozzles: [nozzle('T0'), nozzle('T1')] },
  fans: ['part', 'hot-end'],
  rows: [{ at: 1 }, { at: 2 }],
  sources: { '/head/nozzles/1/diameter': { kind: 'measured' }, '/head/nozzles/0/diameter': { kind: 'assumed' } },
  accepted: [{ rule: 'a', at: '/head/nozzles/1' }, { rule: 'b' }],
}

describe('paths by id', () => {
  it.each([
    ['/head/nozzles/1/diameter', ['head', 'nozzles', '@T1', 'diameter']],
    // words, and members without ids, stay by place
    ['/fans/1', ['fans', '1']],
    ['/rows/1/at', ['rows', '1', 'at']],
    ['/head/nozzles/9/diameter', ['head', 'nozzles', '9', 'diameter']],
    ['/nowhere/0', ['nowhere', '0']],
  ])('%s leads to %s and back', (pointer, path) => {
    expect(pathOf(card, pointer)).toEqual(path)
    expect(pointerAt(card, path)).toBe(pointer)
  })

  it('lead nowhere where the member is gone', () => expect(pointerAt(card, ['head', 'nozzles', '@T7', 'diameter'])).toBeUndefined())
})

describe('what points to members', () => {
  it('is named by id and by place again', () => {
    const named = namedById(card)
    expect(Object.keys(named.sources)).toContain('/head/nozzles/@T1/diameter')
    expect(named.accepted[0]).toEqual({ rule: 'a', at: '/head/nozzles/@T1' })
    expect(namedByPlace(named)).toEqual(card)
  })

  it('goes with a member that is gone', () => {
    const named = namedById(card)
    const less = namedByPlace({ ...named, head: { nozzles: [nozzle('T1')] } })
    expect(less.sources).toEqual({ '/head/nozzles/0/diameter': { kind: 'measured' } })
    expect(less.accepted).toEqual([{ rule: 'a', at: '/head/nozzles/0' }, { rule: 'b' }])
  })

  it('follows its member after an edit that moved it', () => {
    const moved = following(card, { ...card, head: { nozzles: [nozzle('T1'), nozzle('T0')] } })
    expect(moved.sources).toEqual({ '/head/nozzles/0/diameter': { kind: 'measured' }, '/head/nozzles/1/diameter': { kind: 'assumed' } })
    expect(moved.accepted[0]!.at).toBe('/head/nozzles/0')
  })

  it('stays where the edit itself put it', () => {
    const edited = { ...card, sources: { ...card.sources, '/head/nozzles/1/diameter': { kind: 'rating-plate' } } }
    expect(following(card, edited)).toBe(edited)
  })
})

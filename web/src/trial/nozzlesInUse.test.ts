import { describe, expect, it } from 'vitest'
import type { Card, Trial } from '../api/client'
import { nozzlesInUse, printedBy } from './nozzlesInUse'

const card = { head: { nozzles: [{ id: 'T0' }, { id: 'T1' }, { id: 'T2' }] } } as unknown as Card
const trial = (parts: (string | undefined)[], mode?: string) =>
  ({
    parts: parts.map((nozzle, i) => ({ name: `part ${i + 1}`, file: 'h', nozzles: nozzle ? [nozzle] : undefined })),
    mode: mode ? { kind: mode } : undefined,
  }) as unknown as Trial

describe('nozzles in use', () => {
  it.each([
    [['T1', undefined], undefined, ['T0', 'T1']],
    [['T2'], undefined, ['T2']],
    [[], undefined, ['T0']],
    [[undefined], 'copy', ['T0', 'T1']],
    [[undefined], 'mirror', ['T0', 'T1']],
    [[undefined], 'single', ['T0']],
    [['gone'], undefined, ['T0']],
  ])('%j in mode %s are %j', (parts, mode, used) => expect(nozzlesInUse(trial(parts, mode), card)).toEqual(used))

  it('are none on a card without nozzles', () => expect(nozzlesInUse(trial([undefined]), {})).toEqual([]))
})

describe('what a nozzle prints', () => {
  it('is named by its parts, or counted where they are many', () => {
    expect(printedBy(trial(['T1', undefined, 'T1']), card, 'T1')).toBe('part 1, part 3')
    expect(printedBy(trial([undefined, undefined, undefined, undefined]), card, 'T0')).toBe('4 parts')
    expect(printedBy(trial([undefined]), card, 'T2')).toBe('nothing')
  })
  it('is the copy or the mirror image on the second carriage', () => {
    expect(printedBy(trial([undefined], 'copy'), card, 'T1')).toBe('the copy')
    expect(printedBy(trial([undefined], 'mirror'), card, 'T1')).toBe('the mirror image')
    expect(printedBy(trial([undefined], 'mirror'), card, 'T0')).toBe('part 1')
  })
})

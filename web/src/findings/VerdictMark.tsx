import type { Verdict } from '../api/client'
import { SeverityMark } from './SeverityMark'

export const verdictWords: Record<Verdict, string> = {
  fits: 'fits',
  'fits-with-cautions': 'fits with cautions',
  'does-not-fit': 'does not fit',
}

/** How a filament or a recipe goes with a card: a tick, a triangle or an octagon. */
export function VerdictMark({ verdict }: { verdict: Verdict }) {
  return verdict === 'fits' ? (
    <svg width="13" height="13" viewBox="0 0 14 14" role="img" aria-label="fits" style={{ flex: 'none' }}>
      <path d="M1.5 7.5l4 4 7-9" fill="none" stroke="var(--moss)" strokeWidth="2.2" />
    </svg>
  ) : (
    <SeverityMark severity={verdict === 'does-not-fit' ? 'stop' : 'caution'} />
  )
}

import type { Severity } from '../api/client'

/** A severity: an octagon, a triangle or a ring, so that shape tells it as well as colour. */
export function SeverityMark({ severity, size = 13 }: { severity: Severity; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 14 14" role="img" aria-label={severity} style={{ flex: 'none' }}>
      {severity === 'stop' && <path d="M4.4 1h5.2L13 4.4v5.2L9.6 13H4.4L1 9.6V4.4z" fill="var(--madder)" />}
      {severity === 'caution' && <path d="M7 1.5L13.3 12.5H0.7z" fill="var(--ochre)" />}
      {severity === 'note' && <circle cx="7" cy="7" r="4.8" fill="none" stroke="var(--slate)" strokeWidth="2.2" />}
    </svg>
  )
}

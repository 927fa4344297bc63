import { createContext, useContext, useId, type ReactNode } from 'react'
import type { KeepOut } from '../api/client'

type Hatch = KeepOut['kind'] | 'lost'

const Prefix = createContext('')

/** The hatching of regions, after ISO 128-50: told apart by pattern, never by colour alone. */
export function Hatches({
  children,
  frame = (defs) => defs,
}: {
  children: ReactNode
  /** Wraps the definitions where the children are not in one drawing. */ frame?: (defs: ReactNode) => ReactNode
}) {
  const id = useId().replaceAll(':', '')
  return (
    <Prefix.Provider value={id}>
      {frame(
        <defs>
          <pattern id={`${id}-obstacle`} width="6" height="6" patternUnits="userSpaceOnUse">
            <rect width="6" height="6" fill="var(--sheet)" />
            <path d="M0 0L6 6M6 0L0 6" stroke="var(--ink)" strokeWidth="0.7" />
          </pattern>
          <pattern id={`${id}-bad-surface`} width="5" height="5" patternUnits="userSpaceOnUse">
            <circle cx="1.2" cy="1.2" r="0.8" fill="var(--ink)" />
            <circle cx="3.7" cy="3.7" r="0.8" fill="var(--ink)" />
          </pattern>
          <pattern id={`${id}-reserved`} width="14" height="14" patternUnits="userSpaceOnUse">
            <path d="M-1 15L15 -1M-8 8L8 -8M6 22L22 6" stroke="var(--ink-2)" strokeWidth="0.8" />
          </pattern>
          <pattern id={`${id}-lost`} width="7" height="7" patternUnits="userSpaceOnUse">
            <path d="M-1 8L8 -1M-4.5 4.5L4.5 -4.5M2.5 11.5L11.5 2.5" stroke="var(--hair)" strokeWidth="0.9" />
          </pattern>
        </defs>,
      )}
      {children}
    </Prefix.Provider>
  )
}

/** The fill of a kind of region, inside `Hatches`. */
export function useHatch(): (kind: Hatch) => string {
  const prefix = useContext(Prefix)
  return (kind) => `url(#${prefix}-${kind})`
}

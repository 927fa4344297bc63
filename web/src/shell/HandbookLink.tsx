import type { ReactNode } from 'react'
import { Link, useLocation } from 'react-router'

/** What the handbook knows of the place from which it was opened. */
export interface CameFrom {
  from?: string
}

interface HandbookLinkProps {
  chapter?: 'rules' | 'settings' | 'names' | 'dialects'
  /** What is meant there, by its id on the page. */
  of?: string
  label?: string
  className?: string
  children: ReactNode
}

/** A link into the handbook, which leads back to this place. */
export function HandbookLink({ chapter, of, label, className = 'quiet', children }: HandbookLinkProps) {
  const { pathname, search, state } = useLocation() as { pathname: string; search: string; state: CameFrom | null }
  // within the handbook the way back stays that of whoever came in
  const came = pathname.split('/')[1] === 'handbook' ? state : { from: pathname + search }
  return (
    <Link to={`/handbook${chapter ? `/${chapter}` : ''}${of ? `#${of}` : ''}`} state={came} className={className} aria-label={label}>
      {children}
    </Link>
  )
}

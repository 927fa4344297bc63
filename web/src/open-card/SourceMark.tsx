import { Button, Popover } from '@mui/material'
import { useState } from 'react'
import type { Card, SourceKind } from '../api/client'
import { useCard } from './CardContext'
import { HandbookLink } from '../shell/HandbookLink'
import { useFactNames } from './useFactNames'
import './source.css'

/** What kinds of source are called. */
export const sourceWords: Record<SourceKind, string> = {
  'rating-plate': 'rating plate',
  measured: 'measured',
  'reported-by-firmware': 'reported',
  'carried-over': 'carried over',
  assumed: 'assumed',
}
const long: Record<SourceKind, string> = { ...sourceWords, 'reported-by-firmware': 'reported by firmware' }

/** Where a fact of the card comes from; a click tells more and lets it be said. */
export function SourceMark({ pointer }: { pointer: string }) {
  const { document: card, change } = useCard()
  const names = useFactNames()
  return (
    <SourceOf
      pointer={pointer}
      name={names.ofCard(pointer)}
      about={`cards${pointer}`}
      sources={card.sources}
      onChange={(sources) => change((before) => ({ ...before, sources }))}
    />
  )
}

/** Where a fact of any document comes from. */
export function SourceOf({
  pointer,
  name,
  about: place,
  sources,
  onChange,
}: {
  pointer: string
  name: string
  /** Where the handbook tells of it. */
  about: string
  sources: Card['sources']
  onChange: (sources: Card['sources']) => void
}) {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const source = sources?.[pointer]
  const say = (next: Partial<NonNullable<typeof source>> | undefined) => {
    const { [pointer]: old, ...others } = sources ?? {}
    onChange(next ? { ...others, [pointer]: { ...(old ?? { source: 'assumed' as const }), ...next } } : others)
  }
  const about = source ? [long[source.source], source.note, source.on].filter(Boolean).join(', ') : 'nobody has said where this comes from'
  return (
    <>
      <button
        className={source?.source === 'assumed' ? 'source assumed' : 'source'}
        title={about}
        aria-label={`Source of ${name}: ${about}`}
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        {source ? sourceWords[source.source] : '·'}
      </button>
      <Popover
        open={Boolean(anchor)}
        anchorEl={anchor}
        onClose={() => setAnchor(undefined)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
      >
        <div className="source-box">
          <label>
            source
            <select
              className="plain-field"
              value={source?.source ?? ''}
              onChange={(event) => say(event.target.value ? { source: event.target.value as SourceKind } : undefined)}
            >
              <option value="">not said</option>
              {Object.entries(long).map(([value, label]) => (
                <option key={value} value={value}>
                  {label}
                </option>
              ))}
            </select>
          </label>
          <label>
            note
            <input
              className="plain-field"
              maxLength={1000}
              value={source?.note ?? ''}
              placeholder="with which tool, from which page"
              onChange={(event) => say({ note: event.target.value || undefined })}
            />
          </label>
          <label>
            on
            <input
              className="plain-field"
              type="date"
              value={source?.on ?? ''}
              onChange={(event) => say({ on: event.target.value || undefined })}
            />
          </label>
          <HandbookLink chapter="settings" of={place} label={`About ${name}`}>
            handbook
          </HandbookLink>
          <Button onClick={() => setAnchor(undefined)}>Done</Button>
        </div>
      </Popover>
    </>
  )
}

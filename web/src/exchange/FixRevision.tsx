import { useState } from 'react'
import { rememberWho, whoHere } from './who'
import './fix-revision.css'

/** Fixes the draft as a revision, with a note and who does it. */
export function FixRevision({ disabled = false, onFix }: { disabled?: boolean; onFix: (note: string, who: string) => Promise<void> }) {
  const [note, setNote] = useState('')
  const [who, setWho] = useState(whoHere)
  return (
    <form
      className="fix-revision"
      onSubmit={(event) => {
        event.preventDefault()
        rememberWho(who)
        void onFix(note, who).then(() => setNote(''))
      }}
    >
      <input
        className="plain-field"
        aria-label="note"
        placeholder="what has changed"
        value={note}
        maxLength={1000}
        onChange={(event) => setNote(event.target.value)}
      />
      <input
        className="plain-field who"
        aria-label="who"
        placeholder="who"
        value={who}
        maxLength={120}
        onChange={(event) => setWho(event.target.value)}
      />
      <button className="key" disabled={disabled}>
        Fix the draft as a revision
      </button>
    </form>
  )
}

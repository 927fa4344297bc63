import { timeOfDay } from '../units/format'
import type { SaveStatus } from './documentStore'

const keptNowhere = 'not kept in this browser either, its store is full or closed; leave this page open'

/** Says how the draft stands against the database, and offers undo. */
export function SaveNote({ state }: { state: SaveStatus & { past: unknown[]; future: unknown[] } }) {
  const bad = state.state === 'refused' || state.state === 'unreachable' || state.state === 'clash'
  return (
    <>
      <span className={bad ? 'state bad' : 'state'} role="status" data-save={state.state} title={state.problem}>
        {words(state)}
      </span>
      <button className="key" disabled={state.past.length === 0} onClick={state.undo} title="Undo, Ctrl Z">
        undo
      </button>
      <button className="key" disabled={state.future.length === 0} onClick={state.redo} title="Redo, Ctrl Shift Z">
        redo
      </button>
    </>
  )
}

function words({ state, savedAt, problem, mergedAt, keptHere }: SaveStatus): string {
  switch (state) {
    case 'saved':
      return `draft, saved ${timeOfDay(savedAt)}${mergedAt && Date.now() - mergedAt < 60_000 ? ', with changes made elsewhere' : ''}`
    case 'refused':
      return `not saved: ${problem ?? 'refused'}`
    case 'unreachable':
      return `not saved yet: ${keptHere ? 'kept in this browser, tried again' : keptNowhere}. ${problem ?? ''}`
    case 'clash':
      return 'not all saved: see what was changed here and elsewhere'
    default:
      return 'saving'
  }
}

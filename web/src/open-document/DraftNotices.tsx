import type { Kind } from './documents'
import type { OpenClash, SetAside } from './documentStore'
import { differences } from './differences'
import type { Clash } from './merge'
import { nameOf, shown } from './names'
import { fieldPointer } from './pointer'
import { useSchema } from './schema'
import './draft-notices.css'

interface DraftNoticesProps {
  kind: Kind
  state: {
    id: string
    document: unknown
    clashes: OpenClash[]
    setAside: SetAside[]
    choose: (clash: Clash, side: 'mine' | 'theirs') => void
    forget: (key: string) => void
  }
}

/** What a person has to decide about a draft: values changed here and elsewhere, and drafts that cannot be laid over. */
export function DraftNotices({ kind, state }: DraftNoticesProps) {
  return state.clashes.length + state.setAside.length > 0 ? <Notices kind={kind} state={state} /> : null
}

const most = 12

function Notices({ kind, state }: DraftNoticesProps) {
  const limits = useSchema(kind.slice(0, -1) as 'card')
  return (
    <section className="draft-notices" aria-label="To decide">
      {state.clashes.map((clash) => {
        const name = nameOf(clash.path, [state.document, clash.theirs], limits)
        const { unit } = limits(fieldPointer(clash.path))
        return (
          <p key={`${clash.path.join('/')}${clash.order ? '#' : ''}`} role="alert">
            <b>{clash.order ? `The order of ${name}` : name}</b> was changed here and elsewhere.{' '}
            <button className="key" onClick={() => state.choose(clash, 'mine')}>
              keep mine{clash.order ? '' : `: ${shown(clash.mine, unit)}`}
            </button>{' '}
            <button className="key" onClick={() => state.choose(clash, 'theirs')}>
              keep theirs{clash.order ? '' : `: ${shown(clash.theirs, unit)}`}
            </button>
          </p>
        )
      })}
      {state.setAside.map((entry) => (
        <div key={entry.key} role="alert">
          <p>
            This browser kept changes that were never saved, and they cannot be laid over the document. {entry.why}{' '}
            <a
              className="key"
              download={`unsaved-${kind}-${state.id}.json`}
              href={`data:application/json,${encodeURIComponent(entry.text)}`}
            >
              save them as a file
            </a>{' '}
            <button className="key" onClick={() => state.forget(entry.key)}>
              throw them away
            </button>
          </p>
          {entry.draft && <Changed draft={entry.draft} limits={limits} />}
        </div>
      ))}
    </section>
  )
}

function Changed({ draft, limits }: { draft: { base: unknown; document: unknown }; limits: ReturnType<typeof useSchema> }) {
  const names = [...new Set(differences(draft.base, draft.document).map((path) => nameOf(path, [draft.document, draft.base], limits)))]
  if (names.length === 0) return null
  return (
    <p className="quiet">
      They would have changed: {names.slice(0, most).join('; ')}
      {names.length > most ? `; and ${names.length - most} more` : ''}.
    </p>
  )
}

import { useMemo } from 'react'
import { useParams } from 'react-router'
import type { StoreApi } from 'zustand'
import { sentenceOf } from '../api/client'
import { choicesOf } from '../open-card/words'
import { settingsOf } from '../open-document/description'
import { DraftNotices } from '../open-document/DraftNotices'
import type { DocumentState } from '../open-document/documentStore'
import type { Kinds } from '../open-document/documents'
import { pointerOf } from '../open-document/pointer'
import { SaveNote } from '../open-document/SaveNote'
import { fieldAt, limitsOf, useSchemaOf } from '../open-document/schema'
import { useDocumentState, useDocumentStore } from '../open-document/useDocument'
import { useUndoKeys } from '../open-document/useUndoKeys'
import { Shell } from '../shell/Shell'
import { Waiting } from '../shell/Waiting'
import { Redline } from './Redline'

type Stock = 'filaments' | 'recipes'

const trail = [
  { name: 'Rack', to: '/' },
  { name: 'Filaments and recipes', to: '/stock' },
]

/** A filament or a recipe beside another state of it, or another one. */
export default function StockRedline({ kind }: { kind: Stock }) {
  const { id } = useParams()
  const { data: store, error } = useDocumentStore(kind, id)
  if (error)
    return (
      <Shell trail={trail} title="Redline">
        <p className="nothing" role="alert">
          {sentenceOf(error)}
        </p>
      </Shell>
    )
  if (!store) return <Waiting trail={trail} title="Redline" waitsFor={[`the ${kind.slice(0, -1)}`]} />
  return <Open key={id} kind={kind} store={store} />
}

function Open({ kind, store }: { kind: Stock; store: StoreApi<DocumentState<Kinds[Stock]>> }) {
  const state = useDocumentState(kind, store)
  const one = kind.slice(0, -1) as 'filament' | 'recipe'
  const schema = useSchemaOf(one)
  const groups = useMemo(() => new Map(settingsOf(schema).map(({ pointer, group }) => [pointer, group])), [schema])
  const itself = `The ${one} itself`
  useUndoKeys(state.undo, state.redo)
  return (
    <Shell
      trail={[...trail, { name: state.document.name || `${one} without a name`, to: `/${kind}/${state.id}` }]}
      title="Redline"
      state={<SaveNote state={state} />}
      notices={<DraftNotices kind={kind} state={state} />}
    >
      <Redline
        kind={kind}
        id={state.id}
        mine={state.document}
        savedAt={state.savedAt}
        clashes={state.clashes.length > 0}
        setAside={state.setAside}
        change={state.change}
        limits={(pointer) => limitsOf(fieldAt(schema, pointer))}
        choices={(pointer) => choicesOf(fieldAt(schema, pointer)?.['x-words'])}
        headingOf={(path) => groups.get(pointerOf(path))}
        headings={[...new Set(groups.values()), itself]}
      />
    </Shell>
  )
}

import { useParams } from 'react-router'
import type { StoreApi } from 'zustand'
import { sentenceOf, type Filament } from '../api/client'
import { Shell } from '../shell/Shell'
import { Waiting } from '../shell/Waiting'
import type { DocumentState } from '../open-document/documentStore'
import { useDocumentState, useDocumentStore } from '../open-document/useDocument'
import { SettingsPage } from './SettingsPage'
import { HeatWindow } from './HeatWindow'

/** A filament. */
export default function FilamentPage() {
  const { id } = useParams()
  const { data: store, error } = useDocumentStore('filaments', id)
  if (error)
    return (
      <Shell trail={[{ name: 'Filaments and recipes', to: '/stock' }]} title="Filament">
        <p className="nothing" role="alert">
          {sentenceOf(error)}
        </p>
      </Shell>
    )
  return store ? (
    <OpenFilament key={id} store={store} />
  ) : (
    <Waiting trail={[{ name: 'Filaments and recipes', to: '/stock' }]} title="Filament" waitsFor={['the filament']} />
  )
}

function OpenFilament({ store }: { store: StoreApi<DocumentState<Filament>> }) {
  const state = useDocumentState('filaments', store)
  return <SettingsPage state={state} kind="filaments" drawing={<HeatWindow filament={state.document} />} />
}

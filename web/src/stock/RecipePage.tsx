import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useParams } from 'react-router'
import type { StoreApi } from 'zustand'
import { sentenceOf, type Recipe } from '../api/client'
import { Shell } from '../shell/Shell'
import { Waiting } from '../shell/Waiting'
import { DocumentOptions } from '../open-document/DocumentOptions'
import { documents } from '../open-document/documents'
import type { DocumentState } from '../open-document/documentStore'
import { useDocumentState, useDocumentStore } from '../open-document/useDocument'
import { SettingsPage } from './SettingsPage'
import { RecipeLines } from '../settings/RecipeLines'

/** A recipe. */
export default function RecipePage() {
  const { id } = useParams()
  const { data: store, error } = useDocumentStore('recipes', id)
  if (error)
    return (
      <Shell trail={[{ name: 'Filaments and recipes', to: '/stock' }]} title="Recipe">
        <p className="nothing" role="alert">
          {sentenceOf(error)}
        </p>
      </Shell>
    )
  return store ? (
    <OpenRecipe key={id} store={store} />
  ) : (
    <Waiting trail={[{ name: 'Filaments and recipes', to: '/stock' }]} title="Recipe" waitsFor={['the recipe']} />
  )
}

function OpenRecipe({ store }: { store: StoreApi<DocumentState<Recipe>> }) {
  const state = useDocumentState('recipes', store)
  const { data: cards } = useQuery({ queryKey: ['list', 'cards'], queryFn: () => documents.list('cards') })
  const [wanted, setWanted] = useState<string>()
  const id = wanted ?? cards?.[0]?.id
  const { data: card } = useQuery({ queryKey: ['read', 'cards', id], enabled: Boolean(id), queryFn: () => documents.read('cards', id!) })
  return (
    <SettingsPage
      state={state}
      kind="recipes"
      drawing={
        <section aria-label="Ladder and flow">
          <div className="head-line between">
            <h2 className="caps">Ladder and flow</h2>
            <label className="quiet">
              on{' '}
              <select className="plain-field" value={id ?? ''} onChange={(event) => setWanted(event.target.value)}>
                <DocumentOptions of={cards} />
              </select>
            </label>
          </div>
          {card && <RecipeLines card={card.document} recipe={state} filament={undefined} />}
        </section>
      }
    />
  )
}

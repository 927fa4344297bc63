import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { Link } from 'react-router'
import { sentenceOf, type Filament, type Recipe } from '../api/client'
import { DocumentOptions } from '../open-document/DocumentOptions'
import { useSettings } from '../open-document/description'
import { documents } from '../open-document/documents'
import type { DocumentState } from '../open-document/documentStore'
import { valueAt } from '../open-document/pointer'
import { NumberField } from '../units/NumberField'
import { RecipeLines } from '../settings/RecipeLines'
import { EverySetting } from './EverySetting'
import { FindSetting } from './FindSetting'
import { MatchNote } from './MatchNote'
import { useTrial } from './TrialContext'

/** Which filament and recipe are tried, and their figures. */
export function Settings() {
  const { filament, recipe } = useTrial('filament', 'recipe')
  return (
    <>
      <FindSetting />
      <SettingsOf kind="recipes" title="Recipe" state={recipe} />
      <SettingsOf kind="filaments" title="Filament" state={filament} />
      <MatchNote />
      <EverySetting />
    </>
  )
}

interface SettingsOfProps {
  kind: 'recipes' | 'filaments'
  title: string
  state: DocumentState<Recipe> | DocumentState<Filament> | undefined
}

function SettingsOf({ kind, title, state }: SettingsOfProps) {
  const { set, card, recipe, filament } = useTrial('set', 'card', 'recipe', 'filament')
  const { data: list } = useQuery({ queryKey: ['list', kind], queryFn: () => documents.list(kind) })
  const fields = useSettings(kind === 'recipes' ? 'recipe' : 'filament').filter((setting) => setting.pages.includes('trial'))
  const [open, setOpen] = useState(kind === 'recipes')
  const client = useQueryClient()
  const { enqueueSnackbar } = useSnackbar()
  const pointer = kind === 'recipes' ? '/recipe' : '/filament'
  const copy = async () => {
    if (!state) return
    try {
      const made = await documents.make(kind, { ...state.document, name: `${state.document.name ?? title}, copy` })
      await client.invalidateQueries({ queryKey: ['list', kind] })
      set(pointer, made.id)
    } catch (failure) {
      enqueueSnackbar(sentenceOf(failure), { variant: 'error' })
    }
  }
  return (
    <section aria-label={title}>
      <div className="head-line between">
        <h2 className="caps">
          <button className="link plain" aria-expanded={open} onClick={() => setOpen(!open)}>
            <span className="mono">{open ? '−' : '+'}</span> {title}
          </button>
        </h2>
        <select
          className="plain-field chooser"
          aria-label={title}
          value={state?.id ?? ''}
          onChange={(event) => set(pointer, event.target.value || undefined)}
        >
          {!state && <option value="">none chosen</option>}
          <DocumentOptions of={list} />
        </select>
        <button className="link quiet" disabled={!state} onClick={() => void copy()}>
          copy
        </button>
        {state && (
          <Link className="quiet" to={`/${kind}/${state.id}`}>
            all its settings
          </Link>
        )}
      </div>
      {state && open && (
        <div className="settings">
          {fields.map((field) => (
            <label key={field.pointer} className="setting">
              <span>{field.name}</span>
              <NumberField
                value={valueAt(state.document, field.pointer) as number | undefined}
                label={field.name}
                limits={field.limits}
                refused={state.errors[field.pointer]}
                percent={field.percent}
                ratio={field.ratio}
                placeholder={field.otherwise}
                required={field.needed}
                onChange={(value) => state.set(field.pointer, value)}
              />
            </label>
          ))}
        </div>
      )}
      {state && open && kind === 'recipes' && <RetractionNote recipe={recipe} filament={filament?.document} />}
      {state && open && kind === 'recipes' && <RecipeLines card={card.document} recipe={recipe} filament={filament?.document} />}
    </section>
  )
}

/** Where the filament departs from the recipe's or the head's retraction. */
function RetractionNote({ recipe, filament }: { recipe: DocumentState<Recipe> | undefined; filament: Filament | undefined }) {
  const own = filament?.retraction?.length
  const said = recipe?.document.retraction?.length
  if (own == null) return null
  const whatever = said ? `, whatever the recipe says (${said} mm)` : ''
  if (own === 0) return <p className="quiet">{`No retraction: ${filament?.name} is never pulled back${whatever}.`}</p>
  return (
    <p className="quiet">
      {said == null
        ? `Retraction ${own} mm, as ${filament?.name} asks.`
        : `Retraction ${said} mm, as the recipe says; ${filament?.name} asks for ${own}.`}
    </p>
  )
}

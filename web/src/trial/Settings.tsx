import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { Link } from 'react-router'
import { sentenceOf, type Filament, type Recipe } from '../api/client'
import { DocumentOptions } from '../document/DocumentOptions'
import { useSettings } from '../document/description'
import { documents } from '../document/documents'
import type { DocumentState } from '../document/documentStore'
import { valueAt } from '../document/pointer'
import { NumberField } from '../units/NumberField'
import { RecipeLines } from '../recipes/RecipeLines'
import { EverySetting } from './EverySetting'
import { MatchNote } from './MatchNote'
import { useTrial } from './TrialContext'

/** Which filament and recipe are tried, and their figures. */
export function Settings() {
  const { filament, recipe } = useTrial()
  return (
    <>
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
  const { trial, card, recipe, filament } = useTrial()
  const { data: list } = useQuery({ queryKey: ['list', kind], queryFn: () => documents.list(kind) })
  const fields = useSettings(kind === 'recipes' ? 'recipe' : 'filament').filter((setting) => setting.pages.includes('trial'))
  const [open, setOpen] = useState(kind === 'recipes')
  const client = useQueryClient()
  const { enqueueSnackbar } = useSnackbar()
  const pointer = kind === 'recipes' ? '/recipe' : '/filament'
  const copy = async () => {
    if (!state) return
    try {
      const made = await documents.make(kind, { ...state.document, name: `${state.document.name ?? title}, copy` } as Recipe & Filament)
      await client.invalidateQueries({ queryKey: ['list', kind] })
      trial.set(pointer, made.id)
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
          onChange={(event) => trial.set(pointer, event.target.value || undefined)}
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
  return (
    <p className="quiet">
      {own === 0
        ? `No retraction: ${filament?.name} is never pulled back${said ? `, whatever the recipe says (${said} mm)` : ''}.`
        : said == null
          ? `Retraction ${own} mm, as ${filament?.name} asks.`
          : `Retraction ${said} mm, as the recipe says; ${filament?.name} asks for ${own}.`}
    </p>
  )
}

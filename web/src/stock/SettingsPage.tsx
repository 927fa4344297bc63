import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { Shell } from '../shell/Shell'
import type { DocumentState } from '../open-document/documentStore'
import { DraftNotices } from '../open-document/DraftNotices'
import { SaveNote } from '../open-document/SaveNote'
import { useUndoKeys } from '../open-document/useUndoKeys'
import { CardsOf } from './CardsOf'
import type { Settable } from './settable'
import { Revisions } from './Revisions'
import { AboutFields } from '../open-document/AboutFields'
import { SaveAsFile } from '../exchange/SaveAsFile'
import { Schedule } from './Schedule'

interface SettingsPageProps<T extends Settable> {
  state: DocumentState<T>
  kind: 'filaments' | 'recipes'
  /** What is drawn above the cards. */
  drawing?: ReactNode
}

/** A filament or a recipe: its name, all its settings, and the cards it fits. */
export function SettingsPage<T extends Settable>({ state, kind, drawing }: SettingsPageProps<T>) {
  useUndoKeys(state.undo, state.redo)
  const one = kind === 'filaments' ? 'filament' : 'recipe'
  return (
    <Shell
      trail={[
        { name: 'Rack', to: '/' },
        { name: 'Filaments and recipes', to: '/stock' },
      ]}
      title={state.document.name || `${one} without a name`}
      state={<SaveNote state={state} />}
      notices={<DraftNotices kind={kind} state={state} />}
    >
      <main className="settings-page">
        <div>
          <label className="quiet trial-name">
            {one}
            <input
              className="plain-field"
              value={state.document.name ?? ''}
              maxLength={120}
              onChange={(event) => state.set('/name', event.target.value || undefined)}
            />
          </label>
          <AboutFields document={state.document} notes set={state.set} />
          <SaveAsFile what={state.document.name || `the ${one}`} kind={kind} id={state.id} />{' '}
          <Link to={`/${kind}/${state.id}/redline`}>redline</Link>
          <Schedule state={state} kind={one} />
        </div>
        <aside>
          {drawing}
          <CardsOf state={state} kind={kind} />
          <Revisions state={state} kind={kind} />
        </aside>
      </main>
    </Shell>
  )
}

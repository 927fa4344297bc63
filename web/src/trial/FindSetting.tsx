import { useState } from 'react'
import type { Filament, Recipe } from '../api/client'
import { answers, grouped, useDepartures, useSettings, type Setting } from '../open-document/description'
import type { DocumentState } from '../open-document/documentStore'
import { under } from '../open-document/pointer'
import { plain } from '../units/format'
import { movedBy } from '../settings/outcomes'
import { SettingField } from '../settings/SettingField'
import { useRecipeHere } from '../settings/useRecipeHere'
import { useTrial } from './TrialContext'
import { useTouched } from './useTouched'
import './find-setting.css'

const most = 24

/** A setting with the document that has it. */
interface Row {
  of: 'recipe' | 'filament'
  setting: Setting
  state: DocumentState<Recipe> | DocumentState<Filament>
}

/**
 * Any setting of recipe and filament, found by its name, by other words of the trade or by what it moves. Where nothing is sought: what
 * departs from the recipe, what was touched last, and what findings speak of.
 */
export function FindSetting() {
  const { recipe, filament, run } = useTrial('recipe', 'filament', 'run')
  const [search, setSearch] = useState('')
  const [all, setAll] = useState(false)
  const [ofRecipe, ofFilament] = [useSettings('recipe'), useSettings('filament')]
  const [touchedRecipe, touchedFilament] = [useTouched(recipe, ofRecipe), useTouched(filament, ofFilament)]
  const rowsOf = (of: Row['of'], settings: Setting[]): Row[] => {
    const state = of === 'recipe' ? recipe : filament
    return state ? settings.filter(({ kind }) => kind !== 'place').map((setting) => ({ of, setting, state })) : []
  }
  const every = [...rowsOf('recipe', ofRecipe), ...rowsOf('filament', ofFilament)]
  const sought = search.trim()
  const found = every.filter(({ setting }) => answers(setting, sought, movedBy(setting)))
  const touched = [...rowsOf('recipe', touchedRecipe), ...rowsOf('filament', touchedFilament)]
  const pointers = new Set(run?.result.findings.map(({ pointer }) => pointer))
  const spokenOf = every.filter(({ of, setting }) => pointers.has(`/${of}${setting.pointer}`))
  return (
    <section aria-label="Settings" className="find-setting">
      <div className="head-line between">
        <h2 className="caps">Settings</h2>
        <input
          className="search"
          data-search
          placeholder="name, other word, or what it moves · /"
          aria-label="Find a setting"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <button className="link quiet" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? 'fewer' : `all ${every.length}`}
        </button>
      </div>
      {sought && (
        <>
          {found.slice(0, most).map((row) => (
            <SettingRow key={`${row.of} ${row.setting.pointer}`} {...row} />
          ))}
          <p className="quiet" role="status">
            {saidOf(found.length)}
          </p>
        </>
      )}
      {!sought && !all && (
        <>
          <Departing />
          <Named title="Touched last" rows={touched} />
          <Named title="Findings speak of" rows={spokenOf} />
        </>
      )}
      {!sought && all && <Every rows={every} />}
    </section>
  )
}

function saidOf(count: number): string {
  if (count === 0) return 'No setting answers to that.'
  return count > most ? `${most} of ${count} settings; one more word finds fewer.` : `${count} settings`
}

function Named({ title, rows }: { title: string; rows: Row[] }) {
  if (rows.length === 0) return null
  return (
    <div>
      <h3 className="quiet">{title}</h3>
      {rows.map((row) => (
        <SettingRow key={`${row.of} ${row.setting.pointer}`} {...row} />
      ))}
    </div>
  )
}

/** All settings by their headings. */
function Every({ rows }: { rows: Row[] }) {
  const kinds = (['recipe', 'filament'] as const).map((of) => rows.filter((row) => row.of === of))
  return kinds.flatMap((own) =>
    grouped(own.map(({ setting }) => setting)).map((group) => (
      <details key={`${own[0]!.of} ${group.title}`}>
        <summary>
          {own[0]!.of === 'filament' ? 'Filament, ' : ''}
          {group.title} <span className="quiet">{group.settings.length}</span>
        </summary>
        {group.settings.map((setting) => (
          <SettingRow key={setting.pointer} of={own[0]!.of} state={own[0]!.state} setting={setting} />
        ))}
      </details>
    )),
  )
}

function SettingRow({ of, setting, state }: Row) {
  const name = of === 'filament' ? `${setting.name}, of the filament` : setting.name
  return (
    <div className={setting.kind === 'code' ? 'setting wide' : 'setting'} data-setting={`/${of}${setting.pointer}`}>
      <span title={setting.says}>
        {name}
        {of === 'recipe' && setting.pointer === '/walls' && <ThickWalls />}
      </span>
      <SettingField
        setting={setting}
        label={`${name}, found`}
        document={state.document}
        refused={state.errors[setting.pointer]}
        onChange={(value) => state.set(setting.pointer, value)}
      />
    </div>
  )
}

/** What the walls come to side by side. */
export function ThickWalls() {
  const { card, recipe, filament } = useTrial('card', 'recipe', 'filament')
  const walls = useRecipeHere(card.document, recipe?.document, filament?.document)?.walls
  return walls == null ? null : <span className="quiet"> {plain(walls)} mm thick</span>
}

/** Where parts and zones have settings of their own, each of which can be given back. */
function Departing() {
  const { trial } = useTrial('trial')
  const names = new Map([...useDepartures('zone'), ...useDepartures('part')].map((setting) => [setting.pointer, setting]))
  const { parts = [], zones = [] } = trial.document
  const own = [
    ...parts.map((part, i) => ({ list: 'parts' as const, i, name: `${i + 1} ${part.name}`, settings: part.settings ?? {} })),
    ...zones.map((zone, i) => ({ list: 'zones' as const, i, name: zone.name, settings: zone.settings ?? {} })),
  ].flatMap(({ settings, ...at }) => Object.entries(settings).map(([pointer, value]) => ({ ...at, pointer, value, settings })))
  if (own.length === 0) return null
  return (
    <div>
      <h3 className="quiet">Departs from the recipe</h3>
      {own.map(({ list, i, name, pointer, value, settings }) => (
        <p key={`${list} ${i} ${pointer}`} className="departing">
          <span>
            {name}: {names.get(pointer)?.name ?? 'a setting'} <span className="mono">{wordsOf(value, names.get(pointer))}</span>
          </span>
          <button
            className="link quiet"
            aria-label={`${names.get(pointer)?.name ?? 'a setting'} of ${name} as the recipe has it`}
            onClick={() =>
              trial.set(
                under(`/${list}`, i, 'settings'),
                Object.fromEntries(Object.entries(settings).filter(([other]) => other !== pointer)),
              )
            }
          >
            as recipe
          </button>
        </p>
      ))}
    </div>
  )
}

/** A value as its field would show it. */
function wordsOf(value: unknown, setting: Setting | undefined): string {
  if (typeof value === 'number') {
    if (setting?.percent) return `${plain(100 * value)} %`
    return setting?.limits.unit ? `${plain(value)} ${setting.limits.unit}` : plain(value)
  }
  if (typeof value === 'boolean') return value ? 'on' : 'off'
  if (typeof value === 'string') return setting?.choices?.[value] ?? value
  return value == null ? 'not said' : 'otherwise'
}

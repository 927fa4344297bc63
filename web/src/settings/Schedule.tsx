import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, dataOf, type Effect, type Outcome } from '../api/client'
import type { DocumentState } from '../document/documentStore'
import { valueAt } from '../document/pointer'
import { useSchema } from '../document/schema'
import { SourceOf } from '../card/SourceMark'
import { outcomes } from './outcomes'
import type { Group, Row, Settable } from './rows'
import { SettingField } from './SettingField'
import './settings.css'

/** What each setting of a recipe tends to move. */
export function useEffects(): Map<string, Effect> | undefined {
  const { data } = useQuery({
    queryKey: ['effects'],
    staleTime: Infinity,
    queryFn: async () => new Map(dataOf(await api.GET('/api/effects')).map((effect) => [effect.pointer, effect])),
  })
  return data
}

/** All settings of a filament or a recipe, by group; every one is there, none is hidden. */
export function Schedule<T extends Settable>({
  state,
  kind,
  groups,
}: {
  state: DocumentState<T>
  kind: 'filament' | 'recipe'
  groups: Group[]
}) {
  const [search, setSearch] = useState('')
  const limits = useSchema(kind)
  const known = useEffects()
  const effects = kind === 'recipe' ? known : undefined
  const sought = search.trim().toLowerCase()
  const shown = (group: Group, row: Row) =>
    !sought ||
    [group.title, row.label, limits(row.pointer).label, effects?.get(row.pointer)?.says].some((text) =>
      text?.toLowerCase().includes(sought),
    )
  return (
    <div className="settings-schedule">
      <input
        className="search"
        data-search
        placeholder="Find a setting"
        aria-label="Find a setting"
        value={search}
        onChange={(event) => setSearch(event.target.value)}
      />
      {groups.map((group) => {
        const rows = group.rows.filter((row) => shown(group, row))
        return (
          rows.length > 0 && (
            <section key={group.title} aria-label={group.title}>
              <h2 className="caps">{group.title}</h2>
              <table className="list schedule">
                <tbody>
                  {rows.map((row) => (
                    <tr key={row.pointer} data-pointer={row.pointer} className={row.text || row.code ? 'wide' : undefined}>
                      <th scope="row">{row.label}</th>
                      <td>
                        <SettingField
                          row={row}
                          label={`${group.title}, ${row.label}`}
                          document={state.document}
                          limits={limits(row.pointer)}
                          refused={state.errors[row.pointer]}
                          onChange={(value) => state.set(row.pointer, value)}
                        />
                      </td>
                      <td className="from">
                        {valueAt(state.document, row.pointer) != null && !row.text && (
                          <SourceOf
                            pointer={row.pointer}
                            sources={state.document.sources}
                            onChange={(sources) => state.change((before) => ({ ...before, sources }))}
                          />
                        )}
                      </td>
                      {effects && (
                        <td className="moves">
                          {effects.get(row.pointer)?.says} <Tends effect={effects.get(row.pointer)} />
                        </td>
                      )}
                    </tr>
                  ))}
                </tbody>
              </table>
            </section>
          )
        )
      })}
    </div>
  )
}

/** Which outcomes a setting moves when it is raised: + better, − worse, ± both ways. */
function Tends({ effect }: { effect: Effect | undefined }) {
  if (!effect || effect.tends.length === 0) return null
  return (
    <span className="tends">
      {effect.tends.map(({ outcome, by }) => (
        <span
          key={outcome}
          title={`${outcomes[outcome as Outcome].raised}: ${by > 0 ? 'tends to be better' : by < 0 ? 'tends to be worse' : 'depends'} when this is raised`}
        >
          {outcomes[outcome as Outcome].word} {by === 0 ? '±' : (by > 0 ? '+' : '−').repeat(Math.abs(by))}
        </span>
      ))}
    </span>
  )
}

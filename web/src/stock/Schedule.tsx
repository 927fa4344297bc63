import { useState } from 'react'
import type { DocumentState } from '../open-document/documentStore'
import { valueAt } from '../open-document/pointer'
import { answers, grouped, useSettings, type Setting } from '../open-document/description'
import { SourceOf } from '../open-card/SourceMark'
import { movedBy, outcomes } from '../settings/outcomes'
import type { Settable } from './settable'
import { SettingField } from '../settings/SettingField'
import { HandbookLink } from '../shell/HandbookLink'
import '../settings/settings.css'

/** All settings of a filament or a recipe, by group; every one is there, none is hidden. */
export function Schedule<T extends Settable>({ state, kind }: { state: DocumentState<T>; kind: 'filament' | 'recipe' }) {
  const [search, setSearch] = useState('')
  const settings = useSettings(kind)
  const groups = grouped(settings.filter((setting) => answers(setting, search.trim(), movedBy(setting))))
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
      {groups.map((group) => (
        <section key={group.title} aria-label={group.title}>
          <h2 className="caps">{group.title}</h2>
          <table className="list schedule">
            <tbody>
              {group.settings.map((setting) => (
                <tr
                  key={setting.pointer}
                  data-pointer={setting.pointer}
                  className={setting.kind === 'text' || setting.kind === 'code' ? 'wide' : undefined}
                >
                  <th scope="row">
                    {setting.label}{' '}
                    <HandbookLink
                      chapter="settings"
                      of={`${kind}s${setting.pointer}`}
                      className="quiet about-setting"
                      label={`About ${setting.name}`}
                    >
                      ?
                    </HandbookLink>
                  </th>
                  <td>
                    <SettingField
                      setting={setting}
                      label={`${group.title}, ${setting.label}`}
                      document={state.document}
                      refused={state.errors[setting.pointer]}
                      onChange={(value) => state.set(setting.pointer, value)}
                    />
                  </td>
                  <td className="from">
                    {valueAt(state.document, setting.pointer) != null && setting.kind !== 'text' && (
                      <SourceOf
                        pointer={setting.pointer}
                        name={setting.name}
                        about={`${kind}s${setting.pointer}`}
                        sources={state.document.sources}
                        onChange={(sources) => state.change((before) => ({ ...before, sources }))}
                      />
                    )}
                  </td>
                  {kind === 'recipe' && (
                    <td className="moves">
                      {setting.says} <Tends of={setting} />
                    </td>
                  )}
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
    </div>
  )
}

const tendencies = ['tends to be worse', 'depends', 'tends to be better']

/** Which outcomes a setting moves when it is raised: + better, − worse, ± both ways. */
function Tends({ of: { tends } }: { of: Setting }) {
  if (tends.length === 0) return null
  return (
    <span className="tends">
      {tends.map(([outcome, by]) => (
        <span key={outcome} title={`${outcomes[outcome].raised}: ${tendencies[Math.sign(by) + 1]} when this is raised`}>
          {outcomes[outcome].word} {by === 0 ? '±' : (by > 0 ? '+' : '−').repeat(Math.abs(by))}
        </span>
      ))}
    </span>
  )
}

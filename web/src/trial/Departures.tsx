import type { Setting } from '../open-document/description'
import { valueAt, withValue } from '../open-document/pointer'
import { SettingField } from '../settings/SettingField'
import { useTrial } from './TrialContext'

interface DeparturesProps {
  /** Of the part or zone. */
  name: string
  /** What may differ. */
  rows: Setting[]
  settings: Record<string, unknown>
  onChange: (settings: Record<string, unknown>) => void
}

/** Where a part or a zone departs from the recipe: what is chosen differs, the rest is as the recipe has it. */
export function Departures({ name, rows, settings, onChange }: DeparturesProps) {
  const { recipe } = useTrial('recipe')
  const chosen = rows.filter((row) => row.pointer in settings)
  return (
    <div className="departures">
      {chosen.map((row) => (
        <label key={row.pointer} className="setting">
          <span>{row.name}</span>
          <SettingField
            setting={{ ...row, needed: true }}
            label={`${name}, ${row.name}`}
            document={withValue({}, row.pointer, settings[row.pointer])}
            refused={undefined}
            onChange={(value) => value !== undefined && onChange({ ...settings, [row.pointer]: value })}
          />
          <button
            className="link quiet"
            aria-label={`${row.name} as the recipe has it`}
            onClick={() => onChange(Object.fromEntries(Object.entries(settings).filter(([pointer]) => pointer !== row.pointer)))}
          >
            as recipe
          </button>
        </label>
      ))}
      <select
        className="plain-field"
        aria-label={`${name}: what differs`}
        value=""
        onChange={(event) => {
          const row = rows.find((r) => r.pointer === event.target.value)
          if (row) onChange({ ...settings, [row.pointer]: valueAt(recipe?.document, row.pointer) ?? first(row) })
        }}
      >
        <option value="">differ in …</option>
        {rows
          .filter((row) => !(row.pointer in settings))
          .map((row) => (
            <option key={row.pointer} value={row.pointer}>
              {row.name}
            </option>
          ))}
      </select>
    </div>
  )
}

/** The value of which a departure starts where the recipe says nothing. */
function first({ choices, kind, percent, limits }: Setting) {
  if (choices) return Object.keys(choices)[0]
  if (kind === 'switch') return false
  return percent ? 1 : (limits.least ?? 0)
}

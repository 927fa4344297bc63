import { useState } from 'react'
import { valueAt } from '../open-document/pointer'
import { NumberField } from '../units/NumberField'
import type { Setting } from '../open-document/description'

interface SettingFieldProps {
  setting: Setting
  document: object
  refused: string | undefined
  onChange: (value: unknown) => void
  /** The accessible name; the setting's label where it is not given. */
  label?: string
}

/** The field in which one setting is typed, chosen or switched. */
export function SettingField({ setting, document, refused, onChange, label = setting.label }: SettingFieldProps) {
  const value = valueAt(document, setting.pointer)
  if (setting.choices)
    return (
      <select
        className="plain-field"
        aria-label={label}
        value={(value as string) ?? ''}
        onChange={(event) => onChange(event.target.value || undefined)}
      >
        {Object.entries(setting.choices).map(([word, said]) => (
          <option key={word} value={word}>
            {said}
          </option>
        ))}
      </select>
    )
  if (setting.kind === 'switch')
    return <input type="checkbox" aria-label={label} checked={value === true} onChange={(event) => onChange(event.target.checked)} />
  if (setting.kind === 'open')
    return (
      <select
        className="plain-field"
        aria-label={label}
        value={value == null ? '' : String(value)}
        onChange={(event) => onChange(event.target.value === '' ? undefined : event.target.value === 'true')}
      >
        <option value="">not said</option>
        <option value="true">yes</option>
        <option value="false">no</option>
      </select>
    )
  if (setting.kind === 'code')
    return (
      <textarea
        className="plain-field mono"
        aria-label={label}
        rows={value ? 4 : 1}
        spellCheck={false}
        value={(value as string) ?? ''}
        onChange={(event) => onChange(event.target.value || undefined)}
      />
    )
  if (setting.kind === 'pairs') return <Pairs value={value as number[][] | undefined} label={label} refused={refused} onChange={onChange} />
  if (setting.kind === 'text')
    return (
      <input
        className="plain-field"
        aria-label={label}
        value={(value as string) ?? ''}
        placeholder={setting.otherwise}
        onChange={(event) => onChange(event.target.value || undefined)}
      />
    )
  return (
    <NumberField
      value={value as number | undefined}
      label={label}
      limits={setting.limits}
      refused={refused}
      percent={setting.percent}
      ratio={setting.ratio}
      placeholder={setting.otherwise}
      required={setting.needed}
      onChange={onChange}
    />
  )
}

/** Pairs of numbers in one line: `5 1, 20 0.3`. */
function Pairs({
  value,
  label,
  refused,
  onChange,
}: {
  value: number[][] | undefined
  label: string
  refused: string | undefined
  onChange: (value: number[][]) => void
}) {
  const [typed, setTyped] = useState<string>()
  const [error, setError] = useState<string>()
  const type = (text: string) => {
    setTyped(text)
    const pairs = text
      .split(',')
      .map((pair) => pair.trim().split(/\s+/).filter(Boolean).map(Number))
      .filter((pair) => pair.length > 0)
    const wrong =
      pairs.some(([s, share]) => !(s! >= 0) || !(share! >= 0 && share! <= 1)) ||
      pairs.some((p) => p.length !== 2) ||
      pairs.some((p, i) => i > 0 && p[0]! <= pairs[i - 1]![0]!)
    setError(wrong ? 'Pairs of seconds and a share from 0 to 1, times rising: 5 1, 20 0.3' : undefined)
    if (!wrong) onChange(pairs)
  }
  const say = error ?? refused
  return (
    <span className="number-field">
      <input
        className="plain-field mono"
        aria-label={label}
        aria-invalid={Boolean(say)}
        value={typed ?? (value ?? []).map((pair) => pair.join(' ')).join(', ')}
        placeholder="none"
        onChange={(event) => type(event.target.value)}
        onBlur={() => !error && setTyped(undefined)}
      />
      {say && (
        <span className="field-note wrong" role="alert">
          {say}
        </span>
      )}
    </span>
  )
}

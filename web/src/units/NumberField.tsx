import { useId, useState } from 'react'
import { parseEntry } from './entry'
import { plain } from './format'
import { refusal, type Limits } from './limits'

interface NumberFieldProps {
  /** The value in the document; undefined where there is none yet. */
  value: number | null | undefined
  onChange: (value: number | undefined) => void
  limits: Limits
  /** The accessible name. */
  label: string
  /** Why the server refused what was typed. */
  refused?: string
  /** Shown and typed as percent while the document holds a ratio. */
  percent?: boolean
  /** A ratio that may be typed as percent: 96 and 96 % mean 0.96. */
  ratio?: boolean
  required?: boolean
  placeholder?: string
  onFocus?: () => void
}

/** A number with its unit. Takes a decimal comma, inches and arithmetic; refuses in a sentence and keeps what was typed. */
export function NumberField(props: NumberFieldProps) {
  const { value, onChange, limits, label, percent } = props
  const shown = value === undefined || value === null ? '' : plain(percent ? value * 100 : value)
  // what is being typed, or was typed and refused; the document's value shows where there is none
  const [typed, setTyped] = useState<string>()
  const [understood, setUnderstood] = useState<string>()
  const [error, setError] = useState<string>()
  const note = useId()

  const type = (typed: string) => {
    setTyped(typed)
    setUnderstood(undefined)
    if (typed.trim() === '') {
      setError(props.required ? `${sentence(limits.label ?? label)} is needed.` : undefined)
      if (!props.required) onChange(undefined)
      return
    }
    const entry = parseEntry(typed)
    if ('error' in entry) return setError(entry.error)
    const inPercent = props.ratio && !typed.includes('%') && entry.value > 2
    const meant = (percent && !typed.includes('%')) || inPercent ? entry.value / 100 : entry.value
    const wrong = refusal(meant, limits)
    setError(wrong)
    if (wrong) return
    if (entry.computed || inPercent) setUnderstood(`= ${plain(percent ? meant * 100 : meant)}${unitAfter(percent, limits.unit)}`)
    onChange(meant)
  }

  const leave = () => {
    setUnderstood(undefined)
    if (!error) setTyped(undefined)
  }

  const back = () => {
    setTyped(undefined)
    setError(undefined)
    setUnderstood(undefined)
  }

  const say = error ?? props.refused ?? understood
  return (
    <span className="number-field">
      <span className={error || props.refused ? 'entry wrong' : 'entry'}>
        <input
          value={typed ?? shown}
          inputMode="decimal"
          aria-label={label}
          aria-invalid={Boolean(error || props.refused)}
          aria-describedby={say ? note : undefined}
          placeholder={props.placeholder ?? (props.required ? '?' : '')}
          onChange={(event) => type(event.target.value)}
          onFocus={(event) => {
            event.target.select()
            props.onFocus?.()
          }}
          onBlur={leave}
          onKeyDown={(event) => {
            if (event.key === 'Escape') back()
            if (event.key === 'Enter') event.currentTarget.blur()
          }}
        />
        <span className="unit" aria-hidden>
          {percent ? '%' : (limits.unit ?? '')}
        </span>
      </span>
      {say && (
        <span
          id={note}
          className={error || props.refused ? 'field-note wrong' : 'field-note'}
          role={error || props.refused ? 'alert' : undefined}
        >
          {say}
        </span>
      )}
    </span>
  )
}

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

function unitAfter(percent: boolean | undefined, unit: string | undefined): string {
  if (percent) return ' %'
  return unit ? ` ${unit}` : ''
}

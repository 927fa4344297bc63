import { useState } from 'react'
import type { Outcome } from '../api/client'
import { grouped, useSettings } from '../open-document/description'
import { outcomes } from '../settings/outcomes'
import { useTrial } from './TrialContext'
import type { Comparison } from './useWhatIf'

/** Asks what a change really does: a setting a step down and up, all choices of a kind, or what makes an outcome better. */
export function AskWhatIf({ comparison, onAsk }: { comparison: Comparison; onAsk: (outcome: Outcome | undefined) => void }) {
  const { laid, unsaved } = useTrial('laid', 'unsaved')
  const settings = useSettings('recipe')
  const groups = grouped(settings.filter((setting) => setting.says && setting.kind !== 'text'))
  const [asked, setAsked] = useState('')
  const ask = (value: string) => {
    setAsked(value)
    const [kind, what] = [value.slice(0, value.indexOf(' ')), value.slice(value.indexOf(' ') + 1)]
    if (!what) return
    onAsk(kind === 'outcome' ? (what as Outcome) : undefined)
    comparison.ask({ [kind]: what })
  }
  return (
    <select
      className="plain-field"
      aria-label="What if"
      disabled={unsaved || laid === 0}
      value={asked}
      onChange={(event) => ask(event.target.value)}
    >
      <option value="">what if …</option>
      <optgroup label="I want">
        {Object.entries(outcomes).map(([name, { ask: words }]) => (
          <option key={name} value={`outcome ${name}`}>
            {words}
          </option>
        ))}
      </optgroup>
      {groups.map((group) => (
        <optgroup key={group.title} label={group.title}>
          {group.settings.map((setting) => (
            <option key={setting.pointer} value={`setting ${setting.pointer}`}>
              {setting.label}
            </option>
          ))}
        </optgroup>
      ))}
    </select>
  )
}

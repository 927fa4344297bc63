import type { TrialStop } from '../api/client'
import { under } from '../open-document/pointer'
import { useSchema } from '../open-document/schema'
import { NumberField } from '../units/NumberField'
import { useTrial } from './TrialContext'

const kinds = { filament: 'change the filament', pause: 'pause' } as const

/** Heights at which the print stops, for another colour or something that is laid in. */
export function Stops() {
  const { asked, change } = useTrial('asked', 'change')
  const stops = asked.stops ?? []
  const next: TrialStop = { z: (stops.at(-1)?.z ?? 0) + 5, for: 'filament' }
  const add = () => change((before) => ({ ...before, stops: [...(before.stops ?? []), next] }))
  return (
    <section aria-label="Stops">
      <div className="head-line between">
        <h2 className="caps">Stops</h2>
        <button className="link" onClick={add}>
          add a height
        </button>
      </div>
      {stops.map((stop, i) => (
        <StopFields key={stop.id ?? i} index={i} stop={stop} />
      ))}
    </section>
  )
}

function StopFields({ index, stop }: { index: number; stop: TrialStop }) {
  const { trial } = useTrial('trial')
  const limits = useSchema('trial')
  const at = under('/stops', index)
  return (
    <div className="zone-fields">
      <label className="small-field">
        above
        <NumberField
          value={stop.z}
          label={`stop ${index + 1} height`}
          limits={limits(under(at, 'z'))}
          required
          refused={trial.errors[under(at, 'z')]}
          onChange={(value) => trial.set(under(at, 'z'), value)}
        />
      </label>
      <label className="small-field name">
        for
        <select
          className="plain-field"
          aria-label={`stop ${index + 1} for`}
          value={stop.for ?? 'filament'}
          onChange={(event) => trial.set(under(at, 'for'), event.target.value)}
        >
          {Object.entries(kinds).map(([word, said]) => (
            <option key={word} value={word}>
              {said}
            </option>
          ))}
        </select>
      </label>
      <button className="key" onClick={() => trial.change((before) => ({ ...before, stops: before.stops?.filter((_, i) => i !== index) }))}>
        remove
      </button>
    </div>
  )
}

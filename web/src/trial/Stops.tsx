import type { TrialStop } from '../api/client'
import { under } from '../open-document/pointer'
import { useSchema } from '../open-document/schema'
import { NumberField } from '../units/NumberField'
import { useTrial } from './TrialContext'

const kinds = {
  filament: 'change the filament',
  pause: 'pause',
  temperature: 'nozzle at another temperature',
  speed: 'another share of speed',
  fan: 'fan at another share',
  lines: 'own lines of G-code',
} as const
type Kind = keyof typeof kinds

/** What an event of a kind begins with. */
const begins: Record<Kind, Pick<TrialStop, 'value' | 'lines'>> = {
  filament: {},
  pause: {},
  temperature: { value: 200 },
  speed: { value: 0.7 },
  fan: { value: 0.5 },
  lines: { lines: '' },
}

/** What happens at heights: stops for another colour or something that is laid in, other values from there on, lines of one's own. */
export function Stops() {
  const { asked, change } = useTrial('asked', 'change')
  const stops = asked.stops ?? []
  const next: TrialStop = { z: (stops.at(-1)?.z ?? 0) + 5, for: 'filament' }
  const add = () => change((before) => ({ ...before, stops: [...(before.stops ?? []), next] }))
  return (
    <section aria-label="Events">
      <div className="head-line between">
        <h2 className="caps">Events at heights</h2>
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
  const { trial, filament } = useTrial('trial', 'filament')
  const limits = useSchema('trial')
  const at = under('/stops', index)
  const kind = stop.for ?? 'filament'
  const become = (wanted: Kind) => {
    const heat = wanted === 'temperature' ? { value: filament?.document.nozzle?.others ?? begins.temperature.value } : begins[wanted]
    trial.change((before) => ({
      ...before,
      stops: before.stops?.map((one, i) => (i === index ? { id: one.id, z: one.z, for: wanted, ...heat } : one)),
    }))
  }
  return (
    <div className="zone-fields">
      <label className="small-field">
        above
        <NumberField
          value={stop.z}
          label={`event ${index + 1} height`}
          limits={limits(under(at, 'z'))}
          required
          refused={trial.errors[under(at, 'z')]}
          onChange={(value) => trial.set(under(at, 'z'), value)}
        />
      </label>
      <label className="small-field name">
        what
        <select
          className="plain-field"
          aria-label={`event ${index + 1} does`}
          value={kind}
          onChange={(event) => become(event.target.value as Kind)}
        >
          {Object.entries(kinds).map(([word, said]) => (
            <option key={word} value={word}>
              {said}
            </option>
          ))}
        </select>
      </label>
      {(kind === 'temperature' || kind === 'speed' || kind === 'fan') && (
        <label className="small-field">
          from there on
          <NumberField
            value={stop.value ?? undefined}
            label={`event ${index + 1} value`}
            percent={kind !== 'temperature'}
            limits={valueLimits[kind]}
            required
            refused={trial.errors[under(at, 'value')]}
            onChange={(value) => trial.set(under(at, 'value'), value)}
          />
        </label>
      )}
      <button className="key" onClick={() => trial.change((before) => ({ ...before, stops: before.stops?.filter((_, i) => i !== index) }))}>
        remove
      </button>
      {kind === 'lines' && (
        <textarea
          className="plain-field own-lines mono"
          aria-label={`event ${index + 1} lines`}
          rows={3}
          maxLength={4000}
          spellCheck={false}
          placeholder="lines of G-code, written as they stand here"
          value={stop.lines ?? ''}
          onChange={(event) => trial.set(under(at, 'lines'), event.target.value)}
        />
      )}
    </div>
  )
}

const valueLimits = {
  temperature: { label: 'temperature', unit: '°C', least: 1, most: 500 },
  speed: { label: 'share of speed', least: 0.05, most: 5 },
  fan: { label: 'share of fan', least: 0, most: 1 },
} as const

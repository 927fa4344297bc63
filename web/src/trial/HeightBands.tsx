import type { HeightBand } from '../api/client'
import { under } from '../open-document/pointer'
import { useSchema } from '../open-document/schema'
import { NumberField } from '../units/NumberField'
import { useTrial } from './TrialContext'

const fields = [
  ['from', 'from', 'begins'],
  ['to', 'to', 'ends'],
  ['height', 'layers of', 'layer height'],
] as const

/** Heights of layers by hand: bands in which they are lower or higher than the recipe has them. */
export function HeightBands() {
  const { asked, change } = useTrial('asked', 'change')
  const bands = asked.heights ?? []
  const from = bands.at(-1)?.to ?? 5
  const next: HeightBand = { from, to: from + 5, height: 0.1 }
  const add = () => change((before) => ({ ...before, heights: [...(before.heights ?? []), next] }))
  return (
    <section aria-label="Layer heights">
      <div className="head-line between">
        <h2 className="caps">Layer heights</h2>
        <button className="link" onClick={add}>
          add a band
        </button>
      </div>
      {bands.map((band, i) => (
        <BandFields key={band.id ?? i} index={i} band={band} />
      ))}
    </section>
  )
}

function BandFields({ index, band }: { index: number; band: HeightBand }) {
  const { trial } = useTrial('trial')
  const limits = useSchema('trial')
  const at = under('/heights', index)
  return (
    <div className="zone-fields band">
      {fields.map(([name, label, said]) => (
        <label key={name} className="small-field">
          {label}
          <NumberField
            value={band[name]}
            label={`band ${index + 1} ${said}`}
            limits={limits(under(at, name))}
            required
            refused={trial.errors[under(at, name)]}
            onChange={(value) => trial.set(under(at, name), value)}
          />
        </label>
      ))}
      <button
        className="key"
        onClick={() => trial.change((before) => ({ ...before, heights: before.heights?.filter((_, i) => i !== index) }))}
      >
        remove
      </button>
    </div>
  )
}

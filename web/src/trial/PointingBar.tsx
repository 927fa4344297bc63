import { useEffect } from 'react'
import { inField } from '../shell/inField'
import { NumberField } from '../units/NumberField'
import type { Paint, Pointing } from './pointing'
import { useTrial } from './TrialContext'

const says: Record<Pointing['does'], string> = { choose: 'choose', stand: 'stand on a face · f', paint: 'paint marks' }
const paints: Record<Paint, string> = {
  support: 'support here',
  'no support': 'no support here',
  seam: 'seam here',
  'no seam': 'no seam here',
  none: 'as the recipe says',
}
const usualBrush = 4

/** What the pointer does on a part in the pictorial view. */
export function PointingBar() {
  const { pointing, point, laid } = useTrial('pointing', 'point', 'laid')
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (inField(event) || event.ctrlKey || event.metaKey || event.altKey) return
      if (event.key === 'f') point({ does: 'stand' })
      if (event.key === 'Escape') point({ does: 'choose' })
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [point])
  if (laid === 0) return null
  const to = (does: Pointing['does']): Pointing => (does === 'paint' ? { does, mark: 'support', brush: usualBrush } : { does })
  return (
    <div className="pointing" role="group" aria-label="a click on a part">
      {(Object.keys(says) as Pointing['does'][]).map((does) => (
        <button key={does} className="key" aria-pressed={pointing.does === does} onClick={() => point(to(does))}>
          {says[does]}
        </button>
      ))}
      {pointing.does === 'paint' && (
        <>
          <select
            className="plain-field"
            aria-label="what is painted"
            value={pointing.mark}
            onChange={(event) => point({ ...pointing, mark: event.target.value as Paint })}
          >
            {Object.entries(paints).map(([mark, said]) => (
              <option key={mark} value={mark}>
                {said}
              </option>
            ))}
          </select>
          <label className="brush">
            <span className="quiet">brush</span>
            <NumberField
              value={pointing.brush}
              label="brush"
              limits={{ label: 'brush', unit: 'mm', least: 0.2, most: 200 }}
              required
              onChange={(brush) => brush !== undefined && point({ ...pointing, brush })}
            />
          </label>
        </>
      )}
    </div>
  )
}

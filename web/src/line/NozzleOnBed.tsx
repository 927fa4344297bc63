import type { Card, LineStatus } from '../api/client'
import { useRegions } from '../open-card/useRegions'
import { Hatches } from '../drawing/Hatches'
import { bedSize } from '../drawing/outline'
import { Plan } from '../drawing/Plan'
import { useSize } from '../drawing/useSize'
import { fitted, toX, toY } from '../drawing/view'
import '../drawing/drawing.css'

/** Room for the machine zero's letter beside the bed, px. */
const side = 22

/** Where the printer says its nozzle is. */
export function NozzleOnBed({ card, at }: { card: Card; at: LineStatus['position'] }) {
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const { regions, usable } = useRegions(card)
  const { width = 200, depth = 200 } = bedSize(card.envelope?.bed)
  const scale = Math.min((w - 2 * side) / width, (h - 2 * side) / depth)
  const view = fitted(
    { x: 0, y: 0, width, depth },
    { x: side, y: side, width: Math.max(1, width * scale), height: Math.max(1, depth * scale) },
  )
  const origin = card.envelope?.origin ?? { x: 0, y: 0 }
  return (
    <div className="where" ref={ref}>
      {w > 0 && h > 40 && (
        <svg className="drawing" viewBox={`0 0 ${w} ${h}`} role="img" aria-label="Where the nozzle is">
          <Hatches>
            <Plan card={card} view={view} regions={regions} usable={usable} />
            {at && <circle cx={toX(view, at.x + origin.x)} cy={toY(view, at.y + origin.y)} r="5" className="nozzle" />}
          </Hatches>
        </svg>
      )}
    </div>
  )
}

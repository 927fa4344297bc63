import type { Card, RunLine } from '../api/client'
import { useRegions } from '../open-card/useRegions'
import { Hatches } from '../drawing/Hatches'
import { bedSize } from '../drawing/outline'
import { Plan } from '../drawing/Plan'
import { useSize } from '../drawing/useSize'
import { fitted, toX, toY } from '../drawing/view'
import { plain } from '../units/format'
import '../drawing/charts.css'
import '../drawing/drawing.css'

/** Room for the machine zero's letter beside the bed, px. */
const side = 22

/** Where the nozzle goes on the line under the cursor. */
export function PathOnBed({ card, line }: { card: Card; line: RunLine | undefined }) {
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const { regions, usable } = useRegions(card)
  const { width = 200, depth = 200 } = bedSize(card.envelope?.bed)
  const scale = Math.min((w - 2 * side) / width, (h - 44) / depth)
  const view = fitted({ x: 0, y: 0, width, depth }, { x: side, y: 8, width: Math.max(1, w - 2 * side), height: Math.max(1, depth * scale) })
  const { path } = line ?? {}
  const origin = card.envelope?.origin ?? { x: 0, y: 0 }
  return (
    <div className="path-drawing">
      <div className="head-line between">
        <h2 className="caps">Path on the bed</h2>
        <span className="quiet">{line ? `line ${line.line}` : ''}</span>
      </div>
      <div className="path-box" ref={ref}>
        {w > 0 && (
          <svg className="drawing" viewBox={`0 0 ${w} ${h}`} role="img" aria-label="Path of this line on the bed">
            <Hatches>
              <Plan card={card} view={view} regions={regions} usable={usable} />
              {path && (
                <>
                  <path
                    d={`M${toX(view, path[0]!)} ${toY(view, path[1]!)}L${toX(view, path[3]!)} ${toY(view, path[4]!)}`}
                    className="moved"
                  />
                  <circle cx={toX(view, path[3]!)} cy={toY(view, path[4]!)} r="4.5" className="nozzle" />
                </>
              )}
              <text x={toX(view, 0)} y={toY(view, 0) + 24} className="mono-text">
                {path
                  ? `X ${plain(path[3]! - origin.x)} Y ${plain(path[4]! - origin.y)} Z ${plain(path[5]!)}`
                  : 'nothing moves on this line'}
              </text>
            </Hatches>
          </svg>
        )}
      </div>
    </div>
  )
}

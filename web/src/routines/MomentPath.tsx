import type { Card, PreviewMoment } from '../api/client'
import { useRegions } from '../open-card/useRegions'
import { Hatches } from '../drawing/Hatches'
import { bedSize } from '../drawing/outline'
import { Plan } from '../drawing/Plan'
import { useSize } from '../drawing/useSize'
import { fitted, toX, toY } from '../drawing/view'
import { plain } from '../units/format'
import '../drawing/charts.css'
import '../drawing/drawing.css'

interface MomentPathProps {
  card: Card
  moment: PreviewMoment | undefined
  /** Corners x, y, x, y and height of the imagined part, bed frame. */
  part: number[] | undefined
  cursor: number
}

/** The way of the nozzle through a routine on the plan, the line under the cursor in front. */
export function MomentPath({ card, moment, part, cursor }: MomentPathProps) {
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const { regions, usable } = useRegions(card)
  const { width = 200, depth = 200 } = bedSize(card.envelope?.bed)
  const scale = Math.min((w - 28) / width, (h - 44) / depth)
  const view = fitted({ x: 0, y: 0, width, depth }, { x: 14, y: 8, width: Math.max(1, w - 28), height: Math.max(1, depth * scale) })
  const origin = card.envelope?.origin ?? { x: 0, y: 0 }
  const paths = (moment?.lines ?? []).flatMap(({ from, path }) => (path ? [{ from, ...path }] : []))
  const now = paths.findLast((path) => path.from === cursor)
  const d = (path: (typeof paths)[number]) => `M${toX(view, path.x0)} ${toY(view, path.y0)}L${toX(view, path.x1)} ${toY(view, path.y1)}`
  const joined = (which: (path: (typeof paths)[number]) => boolean) => paths.filter(which).map(d).join('')
  return (
    <div className="path-drawing">
      <div className="head-line between">
        <h2 className="caps">Path on the bed</h2>
        <span className="quiet">line {cursor}</span>
      </div>
      <div className="path-box" ref={ref}>
        {w > 0 && (
          <svg className="drawing" viewBox={`0 0 ${w} ${h}`} role="img" aria-label="Path of this routine on the bed">
            <Hatches>
              <Plan card={card} view={view} regions={regions} usable={usable} />
              {part && (
                <>
                  <rect
                    x={toX(view, part[0]!)}
                    y={toY(view, part[3]!)}
                    width={toX(view, part[2]!) - toX(view, part[0]!)}
                    height={toY(view, part[1]!) - toY(view, part[3]!)}
                    className="imagined"
                  />
                  <text
                    x={toX(view, (part[0]! + part[2]!) / 2)}
                    y={toY(view, (part[1]! + part[3]!) / 2) + 4}
                    textAnchor="middle"
                    className="imagined-name"
                  >
                    imagined part
                  </text>
                </>
              )}
              <path d={joined((path) => !path.extrudes)} className="travelled" />
              <path d={joined((path) => path.extrudes)} className="laid" />
              <path d={joined((path) => path.from === cursor)} className="moved" />
              {now && <circle cx={toX(view, now.x1)} cy={toY(view, now.y1)} r="4.5" className="nozzle" />}
              <text x={toX(view, 0)} y={toY(view, 0) + 24} className="mono-text">
                {now ? `X ${plain(now.x1 - origin.x)} Y ${plain(now.y1 - origin.y)} Z ${plain(now.z1)}` : 'nothing moves on this line'}
              </text>
            </Hatches>
          </svg>
        )}
      </div>
    </div>
  )
}

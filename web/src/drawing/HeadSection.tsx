import type { Card } from '../api/client'
import { plain } from '../units/format'
import { outlineBox } from './outline'

/** The head from the front: nozzle, the bodies beside it, the beam, with the heights of their undersides. */
export function HeadSection({ card, x, y, width, height }: { card: Card; x: number; y: number; width: number; height: number }) {
  const bodies = card.head?.bodies ?? []
  const beams = card.head?.beams?.filter((beam) => beam.along === 'x') ?? []
  if (bodies.length === 0) return null
  const boxes = bodies.map((body) => ({ body, box: outlineBox(body.outline) }))
  const reach = Math.max(20, ...boxes.flatMap(({ box }) => [Math.abs(box.x), Math.abs(box.x + box.width)]))
  const top = Math.max(30, ...bodies.map((b) => b.underside + 20), ...beams.map((b) => b.underside + 8))
  const scale = Math.min(width / (2 * reach + 30), height / top)
  const [cx, floor] = [x + width / 2 - 10, y + height]
  const up = (z: number) => floor - z * scale
  return (
    <g aria-label="the head from the front">
      <text x={x + width / 2} y={y - 4} textAnchor="middle" className="title">
        HEAD, FROM THE FRONT
      </text>
      {beams.map((beam, i) => (
        <path
          key={i}
          d={`M${x} ${up(beam.underside)}H${x + width}M${x} ${up(beam.underside + 6)}H${x + width}`}
          stroke="var(--ink-2)"
          strokeWidth="0.9"
        />
      ))}
      {boxes.map(({ body, box }, i) => (
        <g key={i}>
          <rect
            x={cx + box.x * scale}
            y={y}
            width={box.width * scale}
            height={up(body.underside) - y}
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth="1.3"
          />
          {i === 0 && (
            <>
              <path
                d={
                  `M${cx + (box.x + box.width) * scale} ` +
                  `${up(body.underside)}h18M${cx + (box.x + box.width) * scale + 12} ${up(body.underside)}V${floor}`
                }
                stroke="var(--ink-2)"
                strokeWidth="0.8"
                fill="none"
              />
              <text x={cx + (box.x + box.width) * scale + 18} y={up(body.underside / 2) + 4} className="mono-text">
                <tspan className="tag-letter">N</tspan> {plain(body.underside)}
              </text>
            </>
          )}
        </g>
      ))}
      {boxes.map(({ body, box }, i) => (
        <text key={i} x={cx + (box.x + box.width / 2) * scale} y={y + 15 + 15 * i} textAnchor="middle" className="on-paper">
          {i === 0 && <tspan className="tag-letter">M </tspan>}
          {body.name}, {plain(box.width)}
        </text>
      ))}
      <path
        d={`M${cx - 7} ${up(9)}h14l-3 ${6 * scale}h-1.5l-1 ${3 * scale}h-3l-1 ${-3 * scale}h-1.5z`}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth="1.3"
      />
      <path d={`M${x} ${floor}H${x + width}`} stroke="var(--ink)" strokeWidth="1.8" />
    </g>
  )
}

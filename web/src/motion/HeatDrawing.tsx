import { anchorAt } from '../drawing/anchorAt'
import type { Card, HeaterAnswer } from '../api/client'
import { isWithin, parentOf, under, valueAt } from '../open-document/pointer'
import { clockTime, plain } from '../units/format'

interface HeatDrawingProps {
  card: Card
  heater: HeaterAnswer
  x: number
  y: number
  width: number
  height: number
}

const knownFrom: Record<string, string> = { typical: ', typical', log: ', from the log' }

/** A heater at full power from the room's temperature, with its log and where it ends. */
export function HeatDrawing({ card, heater, x, y, width, height }: HeatDrawingProps) {
  const log = (valueAt(card, under(heater.pointer, 'log')) as number[][] | undefined) ?? []
  const longest = heater.curve.at(-1)?.[0] ?? 1
  const max = valueAt(
    card,
    isWithin(heater.pointer, '/heat') ? under(heater.pointer, 'max') : under(parentOf(heater.pointer), 'maxTemperature'),
  ) as number | undefined
  const hottest = Math.max(heater.reachable, heater.fit?.reachableTo ?? 0, max ?? 0, ...log.map((p) => p[1]!)) + 10
  const [left, bottom] = [x + 38, y + height - 20]
  const px = (s: number) => left + (s / longest) * (width - 44)
  const py = (d: number) => bottom - (d / hottest) * (bottom - y)
  const step = hottest > 160 ? 50 : 20
  return (
    <g className="heat-drawing" aria-label={`heating up of the ${heater.name}`}>
      <text x={x} y={y - 10} className="title">
        {heater.name.toUpperCase()} AT FULL POWER
      </text>
      {Array.from({ length: Math.floor(hottest / step) + 1 }, (_, i) => i * step).map((d) => (
        <g key={d}>
          <path d={`M${left} ${py(d)}H${x + width}`} className="grid" />
          <text x={left - 6} y={py(d) + 4} textAnchor="end" className="mono-text">
            {d}
          </text>
        </g>
      ))}
      {[0, 0.25, 0.5, 0.75, 1].map((share) => (
        <text key={share} x={px(share * longest)} y={bottom + 15} textAnchor={anchorAt(share)} className="mono-text">
          {clockTime(share * longest)}
        </text>
      ))}
      {heater.fit && heater.fit.reachableTo != null && (
        <rect
          x={left}
          y={py(heater.fit.reachableTo)}
          width={width - 44}
          height={Math.max(1, py(heater.fit.reachableFrom) - py(heater.fit.reachableTo))}
          className="interval"
        />
      )}
      <path d={`M${left} ${py(heater.reachable)}H${x + width}`} className="end" />
      <text x={x + width - 4} y={py(heater.reachable) - 5} textAnchor="end" className="on-paper">
        ends at {plain(heater.reachable, 1)} °C
        {knownFrom[heater.from] ?? ', the best reached'}
      </text>
      {max != null && (
        <>
          <path d={`M${left} ${py(max)}H${x + width}`} className="rated" />
          <text x={left + 6} y={py(max) - 5} className="on-paper rated-text">
            rated {plain(max)} °C
          </text>
        </>
      )}
      <path d={`M${heater.curve.map(([s, d]) => `${px(s!).toFixed(1)} ${py(d!).toFixed(1)}`).join('L')}`} className="curve" />
      {log.map(([s, d], i) => (
        <circle key={i} cx={px(s!)} cy={py(d!)} r="3" className="log-point" />
      ))}
    </g>
  )
}

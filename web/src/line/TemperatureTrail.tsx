import { useState } from 'react'
import type { LineStatus } from '../api/client'
import { useSize } from '../drawing/useSize'

type Heat = NonNullable<LineStatus['temperatures']>
const kept = 300

/** The temperatures since the page was opened, as they come. */
export function TemperatureTrail({ now }: { now: Heat | undefined }) {
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const [trail, setTrail] = useState<Heat[]>([])
  const [last, setLast] = useState<Heat>()
  if (now && now !== last) {
    setLast(now)
    setTrail([...trail, now].slice(-kept))
  }
  const top = Math.ceil((Math.max(60, ...trail.flatMap((heat) => [heat.nozzle, heat.nozzleTarget ?? 0, heat.bed ?? 0])) + 10) / 60) * 60
  const x = (i: number) => 34 + (i / Math.max(60, trail.length - 1)) * (w - 44)
  const y = (degrees: number) => h - 8 - (degrees / top) * (h - 16)
  const curve = (of: (heat: Heat) => number | null | undefined) =>
    trail.flatMap((heat, i) => (typeof of(heat) === 'number' ? [`${x(i).toFixed(1)} ${y(of(heat)!).toFixed(1)}`] : [])).join('L')
  const path = (of: (heat: Heat) => number | null | undefined) => {
    const points = curve(of)
    return points.includes('L') ? `M${points}` : ''
  }
  return (
    <div className="trail heat" ref={ref}>
      {w > 0 && (
        <svg className="drawing" viewBox={`0 0 ${w} ${h}`} role="img" aria-label="Temperatures as they come">
          {[0, 1, 2, 3].map((i) => (
            <g key={i}>
              <path d={`M34 ${y((top * i) / 3)}H${w - 10}`} stroke="var(--hair)" strokeWidth="0.7" />
              <text x={28} y={y((top * i) / 3) + 4} textAnchor="end" className="mono-text">
                {Math.round((top * i) / 3)}
              </text>
            </g>
          ))}
          <path d={path((heat) => heat.nozzleTarget)} className="asked" />
          <path d={path((heat) => heat.bedTarget)} className="asked" />
          <path d={path((heat) => heat.nozzle)} className="nozzle-line" />
          <path d={path((heat) => heat.bed)} className="bed-line" />
        </svg>
      )}
    </div>
  )
}

import { anchorAt } from './anchorAt'
import type { RunSeries } from '../api/client'
import { useSize } from './useSize'
import { clockTime } from '../units/format'
import './charts.css'

const room = { left: 48, right: 12, top: 8, bottom: 22 }

interface SeriesChartProps {
  data: RunSeries | undefined
  /** The moment to be marked, s on the chart's own axis. */
  at: number | undefined
  /** Subtracted from the seconds for the axis. */
  from?: number
  onAt?: (seconds: number) => void
}

/** Temperatures with what was asked for, then fan and speed on bands of their own; a cursor through all. */
export function SeriesChart({ data, at, from = 0, onAt }: SeriesChartProps) {
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const seconds = data?.seconds ?? []
  const [first, last] = [seconds[0] ?? 0, Math.max((seconds[0] ?? 0) + 1e-9, seconds.at(-1) ?? 1)]
  const band = h > 190 ? 26 : 0
  const bottom = h - room.bottom - 2 * (band + (band ? 8 : 0))
  const hottest = Math.max(40, ...[data?.nozzle, data?.nozzleTarget, data?.bed, data?.bedTarget].flatMap((series) => series ?? []))
  const top = Math.ceil((hottest + 20) / 80) * 80
  const x = (s: number) => room.left + ((s - first) / (last - first)) * (w - room.left - room.right)
  const y = (degrees: number) => bottom - (degrees / top) * (bottom - room.top)
  const curve = (values: number[] | null | undefined, to: (value: number) => number) =>
    data && values ? `M${values.map((value, i) => `${x(seconds[i]!).toFixed(1)} ${to(value).toFixed(1)}`).join('L')}` : ''
  const fastest = Math.max(1, ...(data?.speed ?? []))
  const steps = Array.from({ length: 6 }, (_, i) => first + ((last - first) * i) / 5)
  const bands = [
    { name: 'fan', unit: `${Math.round(100 * Math.max(0, ...(data?.fan ?? [])))} %`, values: data?.fan, most: 1 },
    { name: 'speed', unit: `to ${Math.round(fastest)} mm/s`, values: data?.speed, most: fastest },
  ]
  return (
    <div className="heat-box" ref={ref}>
      {w > 0 && data && (
        <svg
          className="drawing"
          viewBox={`0 0 ${w} ${h}`}
          role="img"
          aria-label="Temperatures, fan and speed over time"
          onPointerDown={(event) => {
            const box = event.currentTarget.getBoundingClientRect()
            onAt?.(first + Math.min(1, Math.max(0, (event.clientX - box.left - room.left) / (w - room.left - room.right))) * (last - first))
          }}
        >
          {[0, 1, 2, 3, 4].map((i) => (
            <g key={i}>
              <path d={`M${room.left} ${y((top * i) / 4)}H${w - room.right}`} stroke="var(--hair)" strokeWidth="0.7" />
              <text x={room.left - 6} y={y((top * i) / 4) + 4} textAnchor="end" className="mono-text">
                {Math.round((top * i) / 4)}
              </text>
            </g>
          ))}
          {steps.map((s, i) => (
            <text key={i} x={x(s)} y={h - 5} textAnchor={anchorAt(i / 5)} className="mono-text">
              {clockTime(s - from)}
            </text>
          ))}
          <path d={curve(data.nozzleTarget, y)} className="asked" />
          <path d={curve(data.bedTarget, y)} className="asked" />
          <path d={curve(data.nozzle, y)} className="nozzle-line" />
          <path d={curve(data.bed, y)} className="bed-line" />
          <path d={curve(data.chamber, y)} className="bed-line" />
          <SeriesLabel text="nozzle" values={data.nozzle} x={x(last)} y={y} />
          {data.bed && <SeriesLabel text="bed" values={data.bed} x={x(last)} y={y} />}
          {data.chamber && <SeriesLabel text="housing" values={data.chamber} x={x(last)} y={y} />}
          {band > 0 &&
            bands.map(({ name, unit, values, most }, i) => {
              const foot = bottom + (i + 1) * (band + 8)
              return (
                <g key={name}>
                  <path d={`M${room.left} ${foot}H${w - room.right}`} stroke="var(--hair)" strokeWidth="0.7" />
                  <path d={curve(values, (value) => foot - (value / most) * (band - 3))} className="nozzle-line" />
                  <text x={room.left - 6} y={foot} textAnchor="end" className="mono-text">
                    {name}
                  </text>
                  <text x={w - room.right} y={foot - band + 9} textAnchor="end" className="series-label">
                    {unit}
                  </text>
                </g>
              )
            })}
          {at !== undefined && at >= first && at <= last && <path d={`M${x(at)} ${room.top}V${h - room.bottom}`} className="cursor-line" />}
        </svg>
      )}
    </div>
  )
}

function SeriesLabel({ text, values, x, y }: { text: string; values: number[]; x: number; y: (degrees: number) => number }) {
  const spot = values[Math.floor(values.length * 0.9)] ?? 0
  return (
    <text x={x - 4} y={y(spot) - 5} textAnchor="end" className="series-label">
      {text}
    </text>
  )
}

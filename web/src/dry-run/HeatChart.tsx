import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, dataOf, type StoredRun } from '../api/client'
import { useSize } from '../drawing/useSize'
import { clockTime } from '../units/format'

const room = { left: 40, right: 12, top: 8, bottom: 22 }
const beginning = 900

/** Temperatures of nozzle and bed over the run, with what was asked for; the cursor's moment is marked. */
export function HeatChart({ id, run, at }: { id: string; run: StoredRun; at: number | undefined }) {
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const whole = run.result.seconds
  const [span, setSpan] = useState<'start' | 'all'>(whole > 2 * beginning ? 'start' : 'all')
  const to = span === 'start' ? Math.min(beginning, whole) : whole
  const { data } = useQuery({
    queryKey: ['heat', id, run.at, to],
    staleTime: Infinity,
    queryFn: async () => dataOf(await api.GET('/api/trials/{id}/run/heat', { params: { path: { id }, query: { to, points: 300 } } })),
  })
  const hottest = Math.max(40, ...[data?.nozzle, data?.nozzleTarget, data?.bed, data?.bedTarget].flatMap((series) => series ?? []))
  const top = Math.ceil((hottest + 20) / 80) * 80
  const x = (seconds: number) => room.left + (seconds / Math.max(1e-9, to)) * (w - room.left - room.right)
  const y = (degrees: number) => h - room.bottom - (degrees / top) * (h - room.top - room.bottom)
  const curve = (values: number[] | null | undefined) =>
    data && values ? `M${values.map((value, i) => `${x(data.seconds[i]!).toFixed(1)} ${y(value).toFixed(1)}`).join('L')}` : ''
  const steps = Array.from({ length: 6 }, (_, i) => (to * i) / 5)
  return (
    <div className="heat">
      <div className="head-line between">
        <h2 className="caps">Temperature, °C</h2>
        <span className="quiet">
          <button className="link" aria-pressed={span === 'start'} onClick={() => setSpan('start')}>
            first {clockTime(Math.min(beginning, whole))}
          </button>{' '}
          ·{' '}
          <button className="link" aria-pressed={span === 'all'} onClick={() => setSpan('all')}>
            all
          </button>
        </span>
      </div>
      <div className="heat-box" ref={ref}>
        {w > 0 && data && (
          <svg className="drawing" viewBox={`0 0 ${w} ${h}`} role="img" aria-label="Temperatures over time">
            {[0, 1, 2, 3, 4].map((i) => (
              <g key={i}>
                <path d={`M${room.left} ${y((top * i) / 4)}H${w - room.right}`} stroke="var(--hair)" strokeWidth="0.7" />
                <text x={room.left - 6} y={y((top * i) / 4) + 4} textAnchor="end" className="mono-text">
                  {Math.round((top * i) / 4)}
                </text>
              </g>
            ))}
            {steps.map((seconds, i) => (
              <text key={i} x={x(seconds)} y={h - 5} textAnchor={i === 0 ? 'start' : i === 5 ? 'end' : 'middle'} className="mono-text">
                {clockTime(seconds)}
              </text>
            ))}
            <path d={curve(data.nozzleTarget)} className="asked" />
            <path d={curve(data.bedTarget)} className="asked" />
            <path d={curve(data.nozzle)} className="nozzle-line" />
            <path d={curve(data.bed)} className="bed-line" />
            <HeatLabel text="nozzle" values={data.nozzle} x={x(to)} y={y} />
            {data.bed && <HeatLabel text="bed" values={data.bed} x={x(to)} y={y} />}
            {at !== undefined && at <= to && <path d={`M${x(at)} ${room.top}V${h - room.bottom}`} className="cursor-line" />}
          </svg>
        )}
      </div>
    </div>
  )
}

function HeatLabel({ text, values, x, y }: { text: string; values: number[]; x: number; y: (degrees: number) => number }) {
  const spot = values[Math.floor(values.length * 0.9)] ?? 0
  return (
    <text x={x - 4} y={y(spot) - 6} textAnchor="end">
      {text}
    </text>
  )
}

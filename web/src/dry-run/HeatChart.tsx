import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, dataOf, type StoredRun } from '../api/client'
import { clockTime } from '../units/format'
import { SeriesChart } from '../drawing/SeriesChart'

const beginning = 900

/** Temperatures, fan and speed over the run; the cursor's moment is marked. */
export function HeatChart({ id, run, at }: { id: string; run: StoredRun; at: number | undefined }) {
  const whole = run.result.seconds
  const [span, setSpan] = useState<'start' | 'all'>(whole > 2 * beginning ? 'start' : 'all')
  const to = span === 'start' ? Math.min(beginning, whole) : whole
  const { data } = useQuery({
    queryKey: ['series', id, run.at, to],
    staleTime: Infinity,
    queryFn: async () => dataOf(await api.GET('/api/trials/{id}/run/series', { params: { path: { id }, query: { to, points: 300 } } })),
  })
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
      <SeriesChart data={data} at={at} />
    </div>
  )
}

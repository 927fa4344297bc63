import { useQuery } from '@tanstack/react-query'
import type { KeyboardEvent, PointerEvent } from 'react'
import { api, dataOf, type LayerTimes, type RunSeries } from '../api/client'
import { useSize } from '../drawing/useSize'
import { clockTime, duration } from '../units/format'
import { MomentLine } from './MomentLine'
import { layerAt, timeAxis, type TimeAxis } from './timeAxis'
import { useTrial } from './TrialContext'
import { useStep } from './useStep'
import './strip.css'

const room = { left: 58, right: 14 }
const least = 92
const bar = { top: 8, height: 34 }
const traces = { first: 74, pitch: 21, height: 15 }
const point = 9

/** The whole print along time: its routines, its layers, traces of speed, flow and heat, and the moment that is looked at. */
export function PrintStrip() {
  const { id, run, stale } = useTrial('id', 'run', 'stale')
  const [ref, { width: w }] = useSize<HTMLDivElement>()
  const times = run?.result.times
  const { data: series } = useQuery({
    queryKey: ['series', id, run?.at, 'whole'],
    enabled: Boolean(times),
    staleTime: Infinity,
    queryFn: async () => dataOf(await api.GET('/api/trials/{id}/run/series', { params: { path: { id }, query: { points: 400 } } })),
  })
  return (
    <div ref={ref} className={stale ? 'print-strip old' : 'print-strip'}>
      {w > 0 && run && times && <Along width={w} total={run.result.seconds} times={times} series={series} />}
      <MomentLine />
      {!times && <p className="quiet">The print along time stands here once it is computed.</p>}
    </div>
  )
}

interface AlongProps {
  width: number
  total: number
  times: LayerTimes
  series: RunSeries | undefined
}

function Along({ width, total, times: { begin, end, starts }, series }: AlongProps) {
  const { layer, lookAt } = useTrial('layer', 'lookAt')
  const axis = timeAxis(begin, end, total, Math.max(1, width - room.left - room.right), least)
  const x = (seconds: number) => room.left + axis.x(seconds)
  const step = useStep()
  const stepped = step?.chosen ? step.lines.get(step.at)?.start : undefined
  const now = stepped ?? starts[layer] ?? begin
  const go = (to: number) => lookAt(Math.max(0, Math.min(starts.length - 1, to)))
  const point = (event: PointerEvent<SVGSVGElement>) => {
    if (event.type !== 'pointerdown' && event.buttons !== 1) return
    const box = event.currentTarget.getBoundingClientRect()
    go(layerAt(starts, axis.at(event.clientX - box.left - room.left)))
  }
  const key = (event: KeyboardEvent) => {
    const to = { ArrowLeft: layer - 1, ArrowRight: layer + 1, Home: 0, End: starts.length - 1 }[event.key]
    if (to === undefined) return
    event.preventDefault()
    go(to)
  }
  return (
    <svg
      className="drawing"
      viewBox={`0 0 ${width} 136`}
      role="slider"
      tabIndex={0}
      aria-label="Moment of the print"
      aria-valuemin={1}
      aria-valuemax={starts.length}
      aria-valuenow={layer + 1}
      aria-valuetext={`layer ${layer + 1}${stepped === undefined ? ' begins' : ''} at ${clockTime(now)} of ${clockTime(total)}`}
      onKeyDown={key}
      onPointerDown={point}
      onPointerMove={point}
    >
      <Pieces axis={axis} begin={begin} end={end} total={total} layers={starts.length} />
      <path d={ticksOf(starts, x)} className="tick" />
      {series && <Traces series={series} x={x} right={width - room.right} />}
      <path d={`M${x(now)} 2V130`} className="now" />
      <text x={Math.min(Math.max(x(now), room.left + 20), width - 34)} y={traces.first - 20} textAnchor="middle" className="now-text">
        {clockTime(now)}
      </text>
    </svg>
  )
}

/** Start, layers and end, one leading into the next. */
function Pieces({ axis, begin, end, total, layers }: { axis: TimeAxis; begin: number; end: number; total: number; layers: number }) {
  const pieces = [
    { name: 'Start', says: clockTime(begin) },
    { name: 'Layers', says: `${layers} in ${duration(end - begin)}` },
    { name: 'End', says: clockTime(total - end) },
  ]
  return pieces.map(({ name, says }, i) => {
    const [left, right] = [room.left + axis.ends[i]! + (i ? 2 : 0), room.left + axis.ends[i + 1]!]
    const back = i ? point : 0
    return (
      <g key={name} className={name === 'Layers' ? 'piece main' : 'piece'}>
        <path
          d={`M${left} ${bar.top}H${right}l${point} ${bar.height / 2}l${-point} ${bar.height / 2}H${left}l${back} ${-bar.height / 2}z`}
        />
        <text x={left + back + 8} y={bar.top + 14} className="name">
          {name}
        </text>
        <text x={left + back + 8} y={bar.top + 28} className="quiet-text">
          {says}
        </text>
      </g>
    )
  })
}

/** A tick a layer; where they would run into each other, fewer. */
function ticksOf(starts: readonly number[], x: (seconds: number) => number): string {
  let [path, last] = ['', -Infinity]
  for (const start of starts) {
    if (x(start) - last < 5) continue
    last = x(start)
    path += `M${last.toFixed(1)} ${bar.top + 1}v4`
  }
  return path
}

/** Thin traces of speed, flow and heat, each with what it comes to at most. */
function Traces({ series, x, right }: { series: RunSeries; x: (seconds: number) => number; right: number }) {
  const { filament } = useTrial('filament')
  const diameter = filament?.document.diameter
  // filament that is pulled back or pushed in on the spot is no flow
  const feed = series.feed.map((value, i) => (series.speed[i]! > 0 ? value : 0))
  const fed = Math.max(0, ...feed)
  const flow = diameter ? `${((fed * Math.PI * diameter ** 2) / 4).toFixed(1)} mm³/s` : `${fed.toFixed(1)} mm of filament/s`
  const rows: { name: string; values: readonly number[]; most: string; second?: readonly number[] | null }[] = [
    { name: 'speed', values: series.speed, most: `${Math.round(Math.max(0, ...series.speed))} mm/s` },
    { name: 'flow', values: feed, most: flow },
    { name: '°C', values: series.nozzle, most: `${Math.round(Math.max(0, ...series.nozzle))}`, second: series.bed },
  ]
  return rows.map(({ name, values, most, second }, i) => {
    const foot = traces.first + i * traces.pitch + traces.height - 4
    const top = Math.max(1e-9, ...values)
    const height = (value: number) => foot - (Math.max(0, value) / top) * traces.height
    const line = (all: readonly number[]) =>
      `M${all.map((value, k) => `${x(series.seconds[k]!).toFixed(1)} ${height(value).toFixed(1)}`).join('L')}`
    return (
      <g key={name} className="trace">
        <path d={`M${room.left} ${foot}H${right}`} className="ground" />
        <path d={line(values)} />
        {second && <path d={line(second)} />}
        <text x={room.left - 6} y={foot} textAnchor="end" className="quiet-text">
          {name}
        </text>
        <text x={right} y={foot - traces.height + 1} textAnchor="end" className="most">
          {most}
        </text>
      </g>
    )
  })
}

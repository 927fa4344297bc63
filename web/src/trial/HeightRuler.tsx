import type { KeyboardEvent, PointerEvent } from 'react'
import { plain } from '../units/format'
import { layerAt } from './timeAxis'
import { useTrial } from './TrialContext'

interface HeightRulerProps {
  x: number
  /** Where the ruler ends and where it has its zero, px. */
  top: number
  foot: number
}

/** Heights of the print beside the drawing: the layer that is looked at, bands of other layers, and what happens from a height on. */
export function HeightRuler({ x, top, foot }: HeightRulerProps) {
  const { layers, layer, lookAt, trial } = useTrial('layers', 'layer', 'lookAt', 'trial')
  const shown = layers[layer]
  if (!shown || foot - top < 40) return null
  const highest = Math.max(...layers.map((one) => one.top))
  const y = (z: number) => foot - (z / highest) * (foot - top)
  const bottoms = layers.map((one) => one.top - one.height)
  const go = (to: number) => lookAt(Math.max(0, Math.min(layers.length - 1, to)))
  const point = (event: PointerEvent<SVGGElement>) => {
    if (event.type !== 'pointerdown' && event.buttons !== 1) return
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    const frame = event.currentTarget.ownerSVGElement!.getScreenCTM()!
    const at = (event.clientY - frame.f) / frame.d
    go(layerAt(bottoms, ((foot - at) / (foot - top)) * highest))
  }
  const key = (event: KeyboardEvent) => {
    const to = { ArrowUp: layer + 1, ArrowRight: layer + 1, ArrowDown: layer - 1, ArrowLeft: layer - 1, Home: 0, End: layers.length - 1 }[
      event.key
    ]
    if (to === undefined) return
    event.preventDefault()
    go(to)
  }
  const step = [0.5, 1, 2, 5, 10, 20, 50, 100].find((one) => (one / highest) * (foot - top) >= 26) ?? 200
  const marks = Array.from({ length: Math.floor(highest / step) + 1 }, (_, i) => i * step)
  return (
    <g
      className="height-ruler"
      role="slider"
      tabIndex={0}
      aria-label="Layer"
      aria-orientation="vertical"
      aria-valuemin={1}
      aria-valuemax={layers.length}
      aria-valuenow={layer + 1}
      aria-valuetext={`layer ${layer + 1} of ${layers.length}, z ${plain(shown.top)} mm`}
      onPointerDown={point}
      onPointerMove={point}
      onKeyDown={key}
    >
      <rect x={x - 14} y={top - 8} width={58} height={foot - top + 16} className="reach" />
      <text x={x + 6} y={top - 12} textAnchor="middle" className="axis">
        Z
      </text>
      {(trial.document.heights ?? []).map((band, i) => (
        <rect
          key={i}
          x={x - 3}
          y={y(Math.min(highest, band.to ?? 0))}
          width={6}
          height={Math.max(2, y(Math.min(highest, band.from ?? 0)) - y(Math.min(highest, band.to ?? 0)))}
          className="band"
        >
          <title>
            layers {plain(band.height)} mm high from {plain(band.from)} to {plain(band.to)} mm
          </title>
        </rect>
      ))}
      <path d={`M${x} ${top}V${foot}${marks.map((z) => `M${x} ${y(z)}h7`).join('')}`} />
      {marks.map((z) => (
        <text key={z} x={x + 11} y={y(z) + 4}>
          {plain(z)}
        </text>
      ))}
      {(trial.document.stops ?? [])
        .filter((stop) => stop.z <= highest)
        .map((stop, i) => (
          <path key={i} d={`M${x - 1} ${y(stop.z)}l-8 -4v8z`} className="event">
            <title>at {plain(stop.z)} mm</title>
          </path>
        ))}
      <path d={`M${x + 1} ${y(shown.top)}l-11 -6v12zM${x} ${y(shown.top)}h34`} className="now" />
    </g>
  )
}

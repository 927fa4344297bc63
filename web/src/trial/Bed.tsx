import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { ModeAnswer, TrialPart, Zone } from '../api/client'
import { useRegions } from '../open-card/useRegions'
import { Elevation } from '../drawing/Elevation'
import { Hatches } from '../drawing/Hatches'
import { bedSize, boxOf, ringsPath } from '../drawing/outline'
import { Plan } from '../drawing/Plan'
import { useSize } from '../drawing/useSize'
import { useZoom } from '../drawing/useZoom'
import { toX, toY, type View, type XY } from '../drawing/view'
import { plain } from '../units/format'
import { LayerLegend, LayerPaths } from './LayerPaths'
import { FrontHandle, PlanHandles } from './Handles'
import { HeadOnFront, HeadOnPlan } from './HeadAtMoment'
import { placedOutline } from './placement'
import { useTrial } from './TrialContext'
import { useTightened } from './useTightened'
import '../drawing/drawing.css'

const inset = { left: 64, right: 150, top: 40, between: 84, below: 44 }

/** The bed from above and from the front, with the parts on it and the layer that is looked at. */
export function Bed() {
  const { card, trial, meshes, fits, layers, layer, lookAt, stale, chosen, order, moment, modePlan } = useTrial(
    'card',
    'trial',
    'meshes',
    'fits',
    'layers',
    'layer',
    'lookAt',
    'stale',
    'chosen',
    'order',
    'moment',
    'modePlan',
  )
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const limits = trial.document.limits
  const tight = useTightened(card.document, limits)
  const { regions, usable } = useRegions(tight)
  const parts = trial.document.parts ?? []
  const { width = 200, depth = 200 } = bedSize(card.document.envelope?.bed)
  const height = card.document.envelope?.height ?? 200
  const tallest = Math.max(0, ...meshes.map((mesh) => mesh?.size[2] ?? 0))
  const fit = placed(w, h, width, depth, Math.min(height, Math.max(tallest * 1.2, depth * 0.4)))
  const zoom = useZoom()
  const view = zoom.zoomed(fit.plan)
  const shown = layers[layer]
  const boxes = parts.flatMap((part, index) => {
    const mesh = meshes[index]
    if (!mesh) return []
    const [minX, , maxX] = boxOf(placedOutline(mesh, part).flat())
    return [
      {
        index,
        left: toX(fit.front, minX),
        right: toX(fit.front, maxX),
        top: toY(fit.front, mesh.size[2]!),
        bad: fits?.[index]?.fits === false,
      },
    ]
  })
  const ruler = toY(fit.plan, 0) + 22
  const worst = moment === undefined ? undefined : order?.moments[moment]

  return (
    <div className="trial-bed" ref={ref}>
      {w > 0 && (
        <svg className="drawing" viewBox={`0 0 ${w} ${h}`} aria-label="Bed with parts" {...zoom.handlers}>
          <Hatches>
            <text x={toX(fit.plan, 0)} y={22} className="title">
              {shown ? `LAYER ${layer + 1} OF ${layers.length}` : 'FROM ABOVE'}
            </text>
            {shown && (
              <text x={toX(fit.plan, 0) + 130} y={22} className="quiet-text">
                z {plain(shown.top)}, {plain(shown.height)} high{stale ? ', before the last change' : ''}
              </text>
            )}
            <svg
              x={0}
              y={32}
              width={Math.max(1, toX(fit.plan, width) + 8)}
              height={Math.max(1, ruler - 38)}
              viewBox={`0 32 ${Math.max(1, toX(fit.plan, width) + 8)} ${Math.max(1, ruler - 38)}`}
            >
              <Plan card={tight} view={view} regions={regions} usable={usable} />
              {modePlan && <ModeOnPlan plan={modePlan} view={view} />}
              {shown && !worst && <LayerPaths layer={shown} view={view} old={stale} />}
              <ZonesOnPlan zones={trial.document.zones ?? []} view={view} />
              {parts.map((part, i) => (
                <PartOnBed
                  key={i}
                  index={i}
                  part={part}
                  view={view}
                  bad={fits?.[i]?.fits === false}
                  faint={Boolean(shown && !stale && !worst)}
                />
              ))}
              {worst && <HeadOnPlan card={card.document} moment={worst} view={view} width={width} />}
            </svg>
            {shown && <LayerLegend x={toX(fit.plan, width) + 22} y={toY(fit.plan, depth) + 8} layer={shown} />}
            <text x={toX(fit.front, 0)} y={fit.cutAt - 12} className="title">
              FROM THE FRONT
            </text>
            <Elevation card={tight} view={fit.front} cutAt={fit.cutAt}>
              {boxes.map(({ index, left, right, top, bad }) => (
                <rect
                  key={index}
                  x={left}
                  y={top}
                  width={right - left}
                  height={toY(fit.front, 0) - top}
                  className={bad ? 'part-box bad' : 'part-box'}
                />
              ))}
              {numbersAt(boxes).map(({ x, numbers }) => (
                <text key={numbers} x={x} y={toY(fit.front, 0) - 4} textAnchor="middle">
                  {numbers}
                </text>
              ))}
              {boxes.map(
                ({ index, left, right, top }) =>
                  chosen === index &&
                  parts[index] && (
                    <FrontHandle
                      key={index}
                      index={index}
                      part={parts[index]}
                      left={left}
                      right={right}
                      top={top}
                      floor={toY(fit.front, 0)}
                    />
                  ),
              )}
              {worst && (
                <HeadOnFront
                  card={card.document}
                  moment={worst}
                  view={fit.front}
                  top={Math.max(fit.cutAt + 4, toY(fit.front, height))}
                  width={width}
                />
              )}
              {shown && !worst && (
                <>
                  <path d={`M${toX(fit.front, 0)} ${toY(fit.front, shown.top)}H${toX(fit.front, width)}`} className="layer-line" />
                  <text x={toX(fit.front, width) + 8} y={toY(fit.front, shown.top) + 4} className="layer-text">
                    {plain(shown.top)}
                  </text>
                </>
              )}
            </Elevation>
          </Hatches>
        </svg>
      )}
      {shown && (
        <input
          type="range"
          className="ruler"
          aria-label="Layer"
          style={{ left: toX(fit.plan, 0), width: width * fit.plan.scale, top: ruler }}
          min={0}
          max={layers.length - 1}
          value={layer}
          aria-valuetext={`layer ${layer + 1} of ${layers.length}, z ${plain(shown.top)} mm`}
          onChange={(event) => lookAt(Number(event.target.value))}
        />
      )}
      {zoom.isZoomed && (
        <button className="key fit-key" style={{ left: toX(fit.plan, width) + 22, top: ruler - 24 }} onClick={zoom.fit}>
          fit
        </button>
      )}
      {parts.length === 0 && (
        <div className="drop-here" style={{ left: toX(fit.plan, width / 2), top: toY(fit.plan, depth / 2) }}>
          Drop a file here: STL, 3MF, OBJ, AMF
        </div>
      )}
    </div>
  )
}

/** Zones from above; a mesh's outline is not drawn, its middle is. */
function ZonesOnPlan({ zones, view }: { zones: Zone[]; view: View }) {
  return zones.map((zone, i) => {
    const [x, y] = [toX(view, zone.x ?? 0), toY(view, zone.y ?? 0)]
    const [w, d] = zone.shape === 'box' ? [zone.width * view.scale, zone.depth * view.scale] : [0, 0]
    return (
      <g key={i} className="zone-outline" pointerEvents="none">
        {zone.shape === 'box' && <rect x={x - w / 2} y={y - d / 2} width={w} height={d} />}
        {zone.shape === 'cylinder' && <circle cx={x} cy={y} r={zone.radius * view.scale} />}
        {zone.shape === 'mesh' && <path d={`M${x - 6} ${y}h12M${x} ${y - 6}v12`} />}
        <text x={x} y={y - d / 2 - 4} textAnchor="middle" stroke="none">
          {zone.name}
        </text>
      </g>
    )
  })
}

function PartOnBed({ index, part, view, bad, faint }: { index: number; part: TrialPart; view: View; bad: boolean; faint: boolean }) {
  const { trial, meshes, chosen, choose, dragging } = useTrial('trial', 'meshes', 'chosen', 'choose', 'dragging')
  const mesh = meshes[index]
  const from = useRef<{ pointer: XY; at: XY }>(undefined)
  const [held, setHeld] = useState(false)
  if (!mesh) return null
  const rings = placedOutline(mesh, part)
  const move = (x: number, y: number) =>
    trial.change(
      (before) => ({ ...before, parts: before.parts?.map((p, i) => (i === index ? { ...p, x: round(x), y: round(y) } : p)) }),
      `part ${index}`,
    )
  const down = (event: PointerEvent<SVGGElement>) => {
    if (event.button !== 0) return
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    from.current = { pointer: [event.clientX, event.clientY], at: [part.x ?? 0, part.y ?? 0] }
    choose(index)
    setHeld(true)
    dragging(true)
  }
  const drag = (event: PointerEvent<SVGGElement>) => {
    if (!from.current) return
    const { pointer, at } = from.current
    move(at[0] + (event.clientX - pointer[0]) / view.scale, at[1] - (event.clientY - pointer[1]) / view.scale)
  }
  const up = () => {
    from.current = undefined
    setHeld(false)
    dragging(false)
  }
  const key = (event: KeyboardEvent) => {
    const step = event.shiftKey ? 10 : 1
    const [dx, dy] = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key] ?? [0, 0]
    if (!dx && !dy) return
    event.preventDefault()
    move((part.x ?? 0) + dx!, (part.y ?? 0) + dy!)
  }
  return (
    <g
      className={`part${chosen === index ? ' chosen' : ''}${bad ? ' bad' : ''}${faint ? ' faint' : ''}${held ? ' held' : ''}`}
      tabIndex={0}
      role="button"
      aria-label={`${part.name}, part ${index + 1}, at ${plain(part.x ?? 0, 1)}, ${plain(part.y ?? 0, 1)}`}
      data-part={index}
      onPointerDown={down}
      onPointerMove={drag}
      onPointerUp={up}
      onPointerCancel={up}
      onFocus={() => choose(index)}
      onKeyDown={key}
    >
      <path d={ringsPath(rings, view)} fillRule="evenodd" />
      {chosen === index && <PlanHandles index={index} part={part} view={view} />}
      <circle cx={toX(view, part.x ?? 0)} cy={toY(view, part.y ?? 0)} r="10" />
      <text x={toX(view, part.x ?? 0)} y={toY(view, part.y ?? 0) + 4} textAnchor="middle">
        {index + 1}
      </text>
    </g>
  )
}

/** The numbers of the parts below their boxes; those that stand behind each other share a place. */
function numbersAt(boxes: { index: number; left: number; right: number }[]): { x: number; numbers: string }[] {
  const places: { x: number; numbers: string }[] = []
  for (const { index, left, right } of boxes) {
    const x = (left + right) / 2
    const near = places.find((place) => Math.abs(place.x - x) < 14)
    if (near) near.numbers += `, ${index + 1}`
    else places.push({ x, numbers: String(index + 1) })
  }
  return places
}

/** Where the first nozzle may print in this mode, and the second parts as ghosts. */
function ModeOnPlan({ plan, view }: { plan: ModeAnswer; view: View }) {
  const { trial, meshes } = useTrial('trial', 'meshes')
  const { second } = plan
  return (
    <g className="mode-on-plan">
      <path d={ringsPath(plan.region, view)} className="mode-region" />
      {second?.mirrored && <path d={`M${toX(view, plan.mirrorAt)} ${toY(view, 0)}V0`} className="mirror" />}
      {second &&
        (trial.document.parts ?? []).map((part, i) => {
          const mesh = meshes[i]
          if (!mesh) return null
          const rings = placedOutline(mesh, part).map((ring) =>
            ring.map(([x, y]): XY => [second.mirrored ? second.x - x : second.x + x, second.y + y]),
          )
          const [minX, minY, maxX, maxY] = boxOf(rings.flat())
          return (
            <g key={i} className="ghost" aria-label={`${second.mirrored ? 'mirror image' : 'copy'} of ${part.name}`}>
              <path d={ringsPath(rings, view)} fillRule="evenodd" />
              <text x={toX(view, (minX + maxX) / 2)} y={toY(view, (minY + maxY) / 2) + 4} textAnchor="middle">
                {i + 1}′
              </text>
            </g>
          )
        })}
    </g>
  )
}

const round = (value: number) => Math.round(value * 10) / 10

interface Layout {
  plan: View
  front: View
  /** Top of the elevation on the drawing, px. */
  cutAt: number
}

/**
 * Plan over elevation, to one scale and projected from each other; where a machine is too tall for that, its elevation is cut above the
 * parts.
 */
function placed(w: number, h: number, width: number, depth: number, height: number): Layout {
  const room = Math.max(60, w - inset.left - inset.right)
  const stack = Math.max(120, h - inset.top - inset.between - inset.below)
  const scale = Math.min(room / width, stack / (depth + height))
  const x0 = inset.left + (room - width * scale) / 2
  const plan = { scale, x0, y0: inset.top + depth * scale }
  return {
    plan,
    front: { scale, x0, y0: Math.min(h - inset.below, plan.y0 + inset.between + height * scale) },
    cutAt: plan.y0 + inset.between,
  }
}

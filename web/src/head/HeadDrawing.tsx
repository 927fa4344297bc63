import { useState, type PointerEvent } from 'react'
import type { Beam, Body, Card } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { OutlineGrips } from '../open-card/OutlineGrips'
import { snapped } from '../open-card/snap'
import { isWithin, under, valueAt } from '../open-document/pointer'
import { Dimension } from '../drawing/Dimension'
import { Frame } from '../drawing/Frame'
import { Hatches, useHatch } from '../drawing/Hatches'
import { outlineBox, outlinePath } from '../drawing/outline'
import { TypedOver } from '../drawing/TypedOver'
import { useSize } from '../drawing/useSize'
import { toX, toY, type View } from '../drawing/view'
import { plain } from '../units/format'
import '../drawing/drawing.css'

interface HeadDrawingProps {
  open: string | undefined
  onOpen: (pointer: string | undefined) => void
}

const border = 24

/** The head from the front and from below, projected from each other; what is open can be dragged. */
export function HeadDrawing({ open, onOpen }: HeadDrawingProps) {
  const { document: card, set, lit, light, limits } = useCard()
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const [editing, setEditing] = useState<{ pointer: string; label: string; x: number; y: number }>()
  const head = card.head ?? {}
  const bodies = head.bodies ?? []
  const beams = head.beams ?? []
  const layout = placed(card, w, h)
  const { front, below } = layout
  const body = bodies.findIndex((_, i) => open === under('/head/bodies', i))
  const beam = beams.findIndex((_, i) => open === under('/head/beams', i))
  const chosen = bodies[body]
  const box = chosen && outlineBox(chosen.outline)
  const edit = (pointer: string, label: string, x: number, y: number) => ({
    lit: lit !== undefined && isWithin(pointer, lit),
    onPoint: (on: boolean) => light(on ? pointer : undefined),
    onEdit: () => setEditing({ pointer, label, x, y }),
  })
  const second = (head.carriages?.length ?? 0) === 2 ? (head.leastDistance ?? 0) : undefined
  const [left, right] = [border + 8, w - border - 8]
  return (
    <div className="sheet" ref={ref}>
      {w > 0 && (
        <svg className="drawing head-drawing" viewBox={`0 0 ${w} ${h}`} aria-label={`Head of ${card.name || 'this card'}`}>
          <Hatches>
            <Frame width={w} height={h} />
            <text x={toX(front, 0)} y={border + 18} textAnchor="middle" className="title">
              HEAD FROM THE FRONT
            </text>
            <text x={toX(below, 0)} y={layout.belowTop - 8} textAnchor="middle" className="title">
              FROM BELOW
            </text>
            <text x={left + 4} y={layout.belowTop + 12} className="quiet-text">
              front of the machine
            </text>
            <text x={left + 4} y={h - border - 10} className="quiet-text">
              back
            </text>

            {beams.map((b, i) => (
              <BeamShape
                key={i}
                beam={b}
                front={front}
                below={below}
                top={layout.frontTop}
                sides={[left, right]}
                ends={[layout.belowTop, h - border - 4]}
                lit={beam === i || isWithin(lit, under('/head/beams', i))}
                onOpen={() => onOpen(under('/head/beams', i))}
              />
            ))}
            {second !== undefined && <SecondHead card={card} front={front} below={below} top={layout.frontTop} away={second} />}
            {byDepth(bodies).map(({ body: b, i }) => (
              <BodyShape
                key={i}
                body={b}
                front={front}
                below={below}
                top={layout.frontTop}
                chosen={body === i}
                lit={isWithin(lit, under('/head/bodies', i))}
                onOpen={() => onOpen(under('/head/bodies', i))}
                onPoint={(on) => light(on ? under('/head/bodies', i) : undefined)}
              />
            ))}
            <Tips card={card} front={front} below={below} onOpen={onOpen} />
            <path d={`M${left} ${toY(front, 0)}H${right}`} className="plate-line" />

            {box && (
              <>
                <Dimension
                  letter="N"
                  from={[toX(front, box.x + box.width), toY(front, chosen.underside)]}
                  to={[toX(front, box.x + box.width), toY(front, 0)]}
                  at={right - 34}
                  value={plain(chosen.underside)}
                  {...edit(under('/head/bodies', body, 'underside'), 'above the tip', right - 60, toY(front, chosen.underside / 2))}
                />
                <Dimension
                  letter="M"
                  from={[toX(below, box.x), toY(below, box.y)]}
                  to={[toX(below, 0), toY(below, 0)].with(1, toY(below, box.y)) as [number, number]}
                  at={layout.belowTop + 22}
                  value={plain(box.x)}
                  {...(chosen.outline.shape === 'rectangle'
                    ? edit(under('/head/bodies', body, 'outline', 'x'), 'left edge', toX(below, box.x / 2), layout.belowTop + 22)
                    : {})}
                />
                <Dimension
                  letter="M"
                  from={[toX(below, box.x), toY(below, box.y + box.depth)]}
                  to={[toX(below, box.x + box.width), toY(below, box.y + box.depth)]}
                  at={Math.min(h - border - 26, toY(below, box.y + box.depth) + 30)}
                  value={plain(box.width)}
                  {...(chosen.outline.shape === 'rectangle'
                    ? edit(
                        under('/head/bodies', body, 'outline', 'width'),
                        'width',
                        toX(below, box.x + box.width / 2),
                        toY(below, box.y + box.depth) + 30,
                      )
                    : {})}
                />
                <Dimension
                  letter="Q"
                  from={[toX(below, box.x + box.width), toY(below, box.y)]}
                  to={[toX(below, box.x + box.width), toY(below, box.y + box.depth)]}
                  at={right - 34}
                  value={plain(box.depth)}
                  {...(chosen.outline.shape === 'rectangle'
                    ? edit(under('/head/bodies', body, 'outline', 'depth'), 'depth', right - 60, toY(below, box.y + box.depth / 2))
                    : {})}
                />
                <Dimension
                  letter="Q"
                  from={[toX(below, box.x), toY(below, box.y)]}
                  to={[toX(below, box.x), toY(below, 0)]}
                  at={left + 34}
                  value={plain(box.y)}
                  {...(chosen.outline.shape === 'rectangle'
                    ? edit(under('/head/bodies', body, 'outline', 'y'), 'front edge', left + 60, toY(below, box.y / 2))
                    : {})}
                />
                <OutlineGrips
                  outline={chosen.outline}
                  view={below}
                  onChange={(outline) => set(under('/head/bodies', body, 'outline'), outline)}
                />
                <HeightGrip
                  x={toX(front, box.x + box.width / 2)}
                  view={front}
                  height={chosen.underside}
                  label="underside"
                  onChange={(underside) => set(under('/head/bodies', body, 'underside'), underside)}
                />
              </>
            )}
            {beams[beam] && (
              <>
                <Dimension
                  letter="S"
                  from={[right - 60, toY(front, beams[beam].underside)]}
                  to={[right - 60, toY(front, 0)]}
                  at={right - 34}
                  value={plain(beams[beam].underside)}
                  {...edit(under('/head/beams', beam, 'underside'), 'underside', right - 60, toY(front, beams[beam].underside / 2))}
                />
                <HeightGrip
                  x={toX(front, 0) + 40}
                  view={front}
                  height={beams[beam].underside}
                  label="underside of the beam"
                  onChange={(underside) => set(under('/head/beams', beam, 'underside'), underside)}
                />
                {(['near', 'far'] as const).map((face) => (
                  <EdgeGrip
                    key={face}
                    beam={beams[beam]!}
                    face={face}
                    view={below}
                    onChange={(value) => set(under('/head/beams', beam, face), value)}
                  />
                ))}
              </>
            )}
          </Hatches>
        </svg>
      )}
      {editing && (
        <TypedOver
          x={editing.x}
          y={editing.y}
          label={editing.label}
          value={valueAt(card, editing.pointer) as number | undefined}
          limits={limits(editing.pointer)}
          onChange={(value) => set(editing.pointer, value)}
          onClose={() => setEditing(undefined)}
        />
      )}
    </div>
  )
}

/** Bodies from the back to the front, as they hide each other. */
const byDepth = (bodies: Body[]) =>
  bodies.map((body, i) => ({ body, i })).sort((a, b) => outlineBox(b.body.outline).y - outlineBox(a.body.outline).y)

interface ShapeProps {
  front: View
  below: View
  /** Where the front view is cut, px. */
  top: number
}

interface BodyShapeProps extends ShapeProps {
  body: Body
  chosen: boolean
  lit: boolean
  onOpen: () => void
  onPoint: (on: boolean) => void
}

function BodyShape({ body, front, below, top, chosen, lit, onOpen, onPoint }: BodyShapeProps) {
  const box = outlineBox(body.outline)
  const under = toY(front, body.underside)
  const x = toX(front, box.x)
  const width = box.width * front.scale
  return (
    <g
      className={chosen || lit ? 'head-body lit' : 'head-body'}
      data-body={body.name}
      onPointerDown={onOpen}
      onPointerEnter={() => onPoint(true)}
      onPointerLeave={() => onPoint(false)}
    >
      <path d={`M${x} ${top}V${under}H${x + width}V${top}`} />
      <path d={outlinePath(body.outline, below)} className="seen-below" />
      <text x={x + width / 2} y={under - 6} textAnchor="middle">
        {body.name}
      </text>
    </g>
  )
}

interface BeamShapeProps extends ShapeProps {
  beam: Beam
  sides: [number, number]
  ends: [number, number]
  lit: boolean
  onOpen: () => void
}

function BeamShape({ beam, front, below, top, sides, ends, lit, onOpen }: BeamShapeProps) {
  const hatch = useHatch()
  const under = toY(front, beam.underside)
  const along = beam.along === 'x'
  const [a, b] = along ? [toY(below, beam.near), toY(below, beam.far)].sort((p, q) => p - q) : [toX(below, beam.near), toX(below, beam.far)]
  return (
    <g className={lit ? 'head-beam lit' : 'head-beam'} onPointerDown={onOpen}>
      {along ? (
        <rect
          x={sides[0]}
          y={Math.min(top, under - 4)}
          width={sides[1] - sides[0]}
          height={Math.max(4, under - top)}
          fill={hatch('lost')}
        />
      ) : (
        <rect
          x={toX(front, beam.near)}
          y={top}
          width={(beam.far - beam.near) * front.scale}
          height={Math.max(4, under - top)}
          fill={hatch('lost')}
        />
      )}
      {along ? (
        <rect
          x={sides[0]}
          y={Math.max(ends[0], a!)}
          width={sides[1] - sides[0]}
          height={Math.max(0, Math.min(ends[1], b!) - Math.max(ends[0], a!))}
          fill={hatch('lost')}
        />
      ) : (
        <rect x={a} y={ends[0]} width={b! - a!} height={ends[1] - ends[0]} fill={hatch('lost')} />
      )}
      <text x={sides[1] - 8} y={under - 5} textAnchor="end" className="on-paper">
        R beam, {plain(beam.near)} to {plain(beam.far)}
      </text>
    </g>
  )
}

/** The head on the other carriage, as near as it comes. */
function SecondHead({ card, front, below, top, away }: ShapeProps & { card: Card; away: number }) {
  const bodies = card.head?.bodies?.filter((body) => !body.on || body.on === card.head?.carriages?.[1]?.nozzle) ?? []
  const shift = (view: View): View => ({ ...view, x0: view.x0 + away * view.scale })
  return (
    <g className="second-head" aria-label="the second head">
      {bodies.map((body, i) => {
        const box = outlineBox(body.outline)
        const x = toX(shift(front), box.x)
        return (
          <g key={i}>
            <path d={`M${x} ${top}V${toY(front, body.underside)}H${x + box.width * front.scale}V${top}`} />
            <path d={outlinePath(body.outline, shift(below))} />
          </g>
        )
      })}
      <path d={tip(toX(front, away), toY(front, 0), front.scale)} />
      <circle cx={toX(below, away)} cy={toY(below, 0)} r={4} />
      <text x={toX(below, away)} y={toY(below, 0) + 20} textAnchor="middle">
        G {plain(away)} away
      </text>
    </g>
  )
}

/** Nozzles and the probe. */
function Tips({ card, front, below, onOpen }: { card: Card; front: View; below: View; onOpen: (pointer: string) => void }) {
  const nozzles = card.head?.nozzles ?? []
  const probe = card.head?.probe
  const own = (card.head?.carriages?.length ?? 0) === 2
  const first = nozzles[0]?.offset ?? { x: 0, y: 0, z: 0 }
  return (
    <g className="tips">
      {nozzles.map((nozzle, i) => {
        if (own && i > 0) return null
        const { x = 0, y = 0, z = 0 } = nozzle.offset ?? {}
        const at = [x - (first.x ?? 0), y - (first.y ?? 0), z - (first.z ?? 0)] as const
        return (
          <g key={i} onPointerDown={() => onOpen(under('/head/nozzles', i))} aria-label={`nozzle ${nozzle.id}`}>
            <path d={tip(toX(front, at[0]), toY(front, at[2]), front.scale)} />
            <circle cx={toX(below, at[0])} cy={toY(below, at[1])} r={Math.max(4, 3 * below.scale)} />
            <circle cx={toX(below, at[0])} cy={toY(below, at[1])} r="1.5" className="bore" />
            <text x={toX(below, at[0]) + 3 * below.scale + 5} y={toY(below, at[1]) - 5}>
              {nozzle.id}
            </text>
          </g>
        )
      })}
      {probe?.kind && probe.kind !== 'none' && probe.x != null && probe.y != null && (
        <g aria-label="probe">
          <path
            d={`M${toX(below, probe.x) - 6} ${toY(below, probe.y)}h12M${toX(below, probe.x)} ${toY(below, probe.y) - 6}v12`}
            className="probe"
          />
          <circle cx={toX(below, probe.x)} cy={toY(below, probe.y)} r="4" className="probe" />
          <text x={toX(below, probe.x)} y={toY(below, probe.y) - 10} textAnchor="middle">
            U probe
          </text>
        </g>
      )}
    </g>
  )
}

/** The tip of a nozzle from the front: a cone under a hexagon. */
function tip(x: number, y: number, scale: number): string {
  const u = Math.max(0.8, Math.min(2.5, scale))
  return `M${x - 0.6 * u} ${y}h${1.2 * u}l${2 * u} ${-3 * u}v${-3 * u}h${-5.2 * u}v${3 * u}z`
}

interface HeightGripProps {
  x: number
  view: View
  height: number
  label: string
  onChange: (height: number) => void
}

/** Drags a height in the front view, in steps of 0.5 mm. */
function HeightGrip({ x, view, height, label, onChange }: HeightGripProps) {
  const drag = (event: PointerEvent<SVGCircleElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return
    const top = event.currentTarget.ownerSVGElement!.getBoundingClientRect().top
    onChange(Math.max(0, snapped((view.y0 - (event.clientY - top)) / view.scale, event.shiftKey ? 5 : 0.5)))
  }
  return (
    <circle
      cx={x}
      cy={toY(view, height)}
      r={5}
      className="grip"
      data-grip="underside"
      onPointerDown={(event) => {
        event.stopPropagation()
        event.currentTarget.setPointerCapture(event.pointerId)
      }}
      onPointerMove={drag}
    >
      <title>drag the {label}</title>
    </circle>
  )
}

/** Drags one face of a beam in the view from below, in steps of 1 mm. */
function EdgeGrip({ beam, face, view, onChange }: { beam: Beam; face: 'near' | 'far'; view: View; onChange: (value: number) => void }) {
  const along = beam.along === 'x'
  const drag = (event: PointerEvent<SVGCircleElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect()
    const value = along ? (event.clientY - box.top - view.y0) / view.scale : (event.clientX - box.left - view.x0) / view.scale
    onChange(snapped(value, event.shiftKey ? 5 : 1))
  }
  return (
    <circle
      cx={along ? toX(view, 0) + 60 : toX(view, beam[face])}
      cy={along ? toY(view, beam[face]) : toY(view, 0) + 60}
      r={5}
      className="grip"
      onPointerDown={(event) => {
        event.stopPropagation()
        event.currentTarget.setPointerCapture(event.pointerId)
      }}
      onPointerMove={drag}
    />
  )
}

/** Front view over the view from below, to one scale, X projected from one to the other. */
function placed(card: Card, w: number, h: number) {
  const head = card.head ?? {}
  const boxes = (head.bodies ?? []).map((body) => outlineBox(body.outline))
  const offsets = (head.nozzles ?? []).map((nozzle) => nozzle.offset ?? { x: 0, y: 0 })
  const away = (head.carriages?.length ?? 0) === 2 ? (head.leastDistance ?? 0) : 0
  const xs = [
    -25,
    25,
    ...boxes.flatMap((b) => [b.x, b.x + b.width, b.x + away, b.x + b.width + away]),
    ...offsets.map((o) => o.x ?? 0),
    head.probe?.x ?? 0,
  ]
  const acrossBeams = (head.beams ?? [])
    .filter((beam) => beam.along === 'x')
    .flatMap((beam) => [Math.max(-80, beam.near), Math.min(80, beam.far)])
  const ys = [-20, 20, ...boxes.flatMap((b) => [b.y, b.y + b.depth]), ...offsets.map((o) => o.y ?? 0), head.probe?.y ?? 0, ...acrossBeams]
  const zs = [20, ...(head.bodies ?? []).map((b) => b.underside + 12), ...(head.beams ?? []).map((b) => b.underside + 8)]
  const [minX, maxX, minY, maxY, maxZ] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys), Math.min(90, Math.max(...zs))]
  const [side, top, between] = [104, border + 28, 64]
  const below = 64
  const room = Math.max(60, w - 2 * border - 2 * side)
  const stack = Math.max(80, h - top - between - below - border)
  const scale = Math.min(room / (maxX - minX), stack / (maxZ + maxY - minY), 7)
  const spare = Math.max(0, stack - scale * (maxZ + maxY - minY))
  const x0 = border + side + (room - (maxX - minX) * scale) / 2 - minX * scale
  const floor = top + spare / 3 + maxZ * scale
  const belowTop = floor + between
  return {
    front: { scale, x0, y0: floor },
    below: { scale, x0, y0: belowTop + 26 - minY * scale, fromBelow: true },
    frontTop: top + 4,
    belowTop,
  }
}

import type { Beam, Body, Card } from '../api/client'
import { useHatch } from '../drawing/Hatches'
import { outlineBox, outlinePath } from '../drawing/outline'
import { type View, toX, toY } from '../drawing/view'
import { under } from '../open-document/pointer'
import { plain } from '../units/format'

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

export function BodyShape({ body, front, below, top, chosen, lit, onOpen, onPoint }: BodyShapeProps) {
  const box = outlineBox(body.outline)
  const foot = toY(front, body.underside)
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
      <path d={`M${x} ${top}V${foot}H${x + width}V${top}`} />
      <path d={outlinePath(body.outline, below)} className="seen-below" />
      <text x={x + width / 2} y={foot - 6} textAnchor="middle">
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

export function BeamShape({ beam, front, below, top, sides, ends, lit, onOpen }: BeamShapeProps) {
  const hatch = useHatch()
  const foot = toY(front, beam.underside)
  const along = beam.along === 'x'
  const [a, b] = along ? [toY(below, beam.near), toY(below, beam.far)].sort((p, q) => p - q) : [toX(below, beam.near), toX(below, beam.far)]
  return (
    <g className={lit ? 'head-beam lit' : 'head-beam'} onPointerDown={onOpen}>
      {along ? (
        <rect x={sides[0]} y={Math.min(top, foot - 4)} width={sides[1] - sides[0]} height={Math.max(4, foot - top)} fill={hatch('lost')} />
      ) : (
        <rect
          x={toX(front, beam.near)}
          y={top}
          width={(beam.far - beam.near) * front.scale}
          height={Math.max(4, foot - top)}
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
      <text x={sides[1] - 8} y={foot - 5} textAnchor="end" className="on-paper">
        R beam, {plain(beam.near)} to {plain(beam.far)}
      </text>
    </g>
  )
}

/** The head on the other carriage, as near as it comes. */
export function SecondHead({ card, front, below, top, away }: ShapeProps & { card: Card; away: number }) {
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
export function Tips({ card, front, below, onOpen }: { card: Card; front: View; below: View; onOpen: (pointer: string) => void }) {
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

import type { Card, Moment } from '../api/client'
import { outlineBox, outlinePath } from '../drawing/outline'
import { toX, toY, type View } from '../drawing/view'

/** Where the tip of a nozzle is; of a worst moment, also how near the head comes to what stands, and with what. */
export type HeadPlace = Pick<Moment, 'x' | 'y' | 'z' | 'nozzle'> & Partial<Pick<Moment, 'gap' | 'with'>>

interface HeadAtMomentProps {
  card: Card
  moment: HeadPlace
}

/** How far from its place on the card the head is drawn for a nozzle: its tip is at the moment's place. */
export function tipShift(card: Card, nozzle: number): { x: number; y: number; z: number } {
  if (card.head?.carriages?.length === 2) return { x: 0, y: 0, z: 0 }
  const offsets = (card.head?.nozzles ?? []).map((n) => n.offset ?? { x: 0, y: 0, z: 0 })
  const [first, own] = [offsets[0] ?? { x: 0, y: 0, z: 0 }, offsets[nozzle] ?? { x: 0, y: 0, z: 0 }]
  return { x: (own.x ?? 0) - (first.x ?? 0), y: (own.y ?? 0) - (first.y ?? 0), z: (own.z ?? 0) - (first.z ?? 0) }
}

/** The bodies that go where a nozzle goes. */
export const bodiesAt = (card: Card, nozzle: number) => {
  const id = card.head?.nozzles?.[nozzle]?.id
  return (card.head?.bodies ?? []).filter((body) => card.head?.carriages?.length !== 2 || !body.on || body.on === id)
}

const hits = ({ gap }: HeadPlace) => gap !== undefined && gap <= 0

/** The head from above, where it comes nearest to what stands. */
export function HeadOnPlan({ card, moment, view, width }: HeadAtMomentProps & { view: View; width: number }) {
  const shift = tipShift(card, moment.nozzle)
  const own: View = { ...view, x0: view.x0 + (moment.x - shift.x) * view.scale, y0: view.y0 - (moment.y - shift.y) * view.scale }
  return (
    <g className={hits(moment) ? 'head-at hits' : 'head-at'} aria-label={`head at X ${moment.x.toFixed(1)}, Y ${moment.y.toFixed(1)}`}>
      {(card.head?.beams ?? []).map((beam, i) =>
        beam.along === 'x' ? (
          <path
            key={i}
            d={`M${toX(view, 0)} ${toY(own, beam.near)}H${toX(view, width)}M${toX(view, 0)} ${toY(own, beam.far)}H${toX(view, width)}`}
            className="thin"
          />
        ) : (
          <path key={i} d={`M${toX(own, beam.near)} ${toY(view, 0)}V0M${toX(own, beam.far)} ${toY(view, 0)}V0`} className="thin" />
        ),
      )}
      {bodiesAt(card, moment.nozzle).map((body, i) => (
        <path
          key={i}
          d={outlinePath(body.outline, own)}
          className={moment.with !== undefined && body.name === moment.with ? 'near' : undefined}
        />
      ))}
      <path
        d={`M${toX(view, moment.x) - 7} ${toY(view, moment.y)}h14M${toX(view, moment.x)} ${toY(view, moment.y) - 7}v14`}
        className="tip"
      />
    </g>
  )
}

/** The head from the front at the same moment. */
export function HeadOnFront({ card, moment, view, top, width }: HeadAtMomentProps & { view: View; top: number; width: number }) {
  const shift = tipShift(card, moment.nozzle)
  const [x, z] = [moment.x - shift.x, moment.z - shift.z]
  const tipX = toX(view, moment.x)
  const tipY = toY(view, moment.z)
  return (
    <g className={hits(moment) ? 'head-at hits' : 'head-at'}>
      {(card.head?.beams ?? [])
        .filter((beam) => beam.along === 'x')
        .map((beam, i) => (
          <path key={i} d={`M${toX(view, 0)} ${toY(view, z + beam.underside)}H${toX(view, width)}`} className="thin" />
        ))}
      {bodiesAt(card, moment.nozzle).map((body, i) => {
        const box = outlineBox(body.outline)
        return (
          <path
            key={i}
            d={`M${toX(view, x + box.x)} ${top}V${toY(view, z + body.underside)}H${toX(view, x + box.x + box.width)}V${top}`}
            className={moment.with !== undefined && body.name === moment.with ? 'near' : undefined}
          />
        )
      })}
      <path d={`M${tipX} ${tipY}l4 -6v-5h-8v5z`} className="tip" />
    </g>
  )
}

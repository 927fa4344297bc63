import type { Card } from '../api/client'
import { useHatch } from '../drawing/Hatches'
import { bedOutline, outlinePath, ringsPath } from '../drawing/outline'
import type { View } from '../drawing/view'

/** The bed less a region, hatched. */
export function OutOfReach({ card, view, polygons }: { card: Card; view: View; polygons: number[][][][] }) {
  const hatch = useHatch()
  const bed = bedOutline(card.envelope?.bed)
  if (!bed) return null
  const region = polygons.map((rings) => ringsPath(rings, view)).join('')
  return (
    <g className="reach">
      <path d={outlinePath(bed, view) + region} fillRule="evenodd" fill={hatch('lost')} />
      <path d={region} className="reach-border" />
    </g>
  )
}

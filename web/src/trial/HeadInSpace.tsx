import { useMemo } from 'react'
import type { Card } from '../api/client'
import { bedSize, outlineRing } from '../drawing/outline'
import type { Inks } from '../pictorial/inks'
import { Segments } from '../pictorial/segments'
import { SegmentLines } from '../pictorial/SegmentLines'
import { bodiesAt, tipShift, type HeadPlace } from './HeadAtMoment'

/** How much of a body is drawn above its underside, and of the nozzle above its tip, mm: the card knows no more of them. */
const drawn = { body: 24, tip: 7, round: 4 }

/** The head in space with its tip at a place: nozzle, bodies, beams. */
export function HeadInSpace({ card, at, inks }: { card: Card; at: HeadPlace; inks: Inks }) {
  const { bodies, tip } = useMemo(() => linesOf(card, at), [card, at])
  return (
    <>
      <SegmentLines points={bodies} colour={inks.ink} />
      <SegmentLines points={tip} colour={inks.madder} />
    </>
  )
}

function linesOf(card: Card, at: HeadPlace) {
  const shift = tipShift(card, at.nozzle)
  const { width = 0, depth = 0 } = bedSize(card.envelope?.bed)
  const [x, y, z] = [at.x - shift.x, at.y - shift.y, at.z - shift.z]
  const [bodies, tip] = [new Segments(), new Segments()]
  for (const body of bodiesAt(card, at.nozzle)) {
    const ring = outlineRing(body.outline).map(([ox, oy]) => [x + ox, y + oy] as const)
    bodies.prism(ring, z + body.underside, z + body.underside + drawn.body)
  }
  for (const { along, near, far, underside } of card.head?.beams ?? [])
    for (const side of [near, far])
      if (along === 'x') bodies.line([0, y + side, z + underside], [width, y + side, z + underside])
      else bodies.line([x + side, 0, z + underside], [x + side, depth, z + underside])
  const quarters = [0, 1, 2, 3].map((i) => [drawn.round * Math.cos((i * Math.PI) / 2), drawn.round * Math.sin((i * Math.PI) / 2)] as const)
  tip.ring(
    quarters.map(([ox, oy]) => [at.x + ox, at.y + oy]),
    at.z + drawn.tip,
  )
  for (const [ox, oy] of quarters) tip.line([at.x, at.y, at.z], [at.x + ox, at.y + oy, at.z + drawn.tip])
  return { bodies: bodies.points(), tip: tip.points() }
}

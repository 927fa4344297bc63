import type { Card } from '../api/client'
import { bedOutline, outlineBox, outlinePath } from '../drawing/outline'
import { fitted, toX, toY } from '../drawing/view'

const [width, height, room] = [280, 230, 8]

/** The plan of both cards: mine in lines, theirs dashed; beds, keep-outs and origins. */
export function BothOutlines({ mine, theirs }: { mine: Card; theirs: Card }) {
  const outlines = [mine, theirs].flatMap(({ envelope }) => {
    const bed = bedOutline(envelope?.bed)
    return bed ? [bed, ...(envelope?.keepOuts ?? []).map(({ outline }) => outline)] : []
  })
  if (outlines.length === 0) return null
  const boxes = outlines.map(outlineBox)
  const [left, front] = [Math.min(...boxes.map(({ x }) => x)), Math.min(...boxes.map(({ y }) => y))]
  const plane = {
    x: left,
    y: front,
    width: Math.max(...boxes.map(({ x, width }) => x + width)) - left,
    depth: Math.max(...boxes.map(({ y, depth }) => y + depth)) - front,
  }
  const view = fitted(plane, { x: room, y: room, width: width - 2 * room, height: height - 2 * room })
  const drawn = ({ envelope }: Card, dashed: boolean) => {
    const bed = bedOutline(envelope?.bed)
    const line = dashed ? { fill: 'none', stroke: 'var(--madder)', strokeDasharray: '5 3' } : { fill: 'none', stroke: 'var(--ink)' }
    return (
      <>
        {bed && <path d={outlinePath(bed, view)} {...line} strokeWidth="1.6" />}
        {(envelope?.keepOuts ?? []).map(({ id, outline }, i) => (
          <path key={id ?? i} d={outlinePath(outline, view)} {...line} strokeWidth="1" />
        ))}
        {envelope?.origin && (
          <circle cx={toX(view, envelope.origin.x)} cy={toY(view, envelope.origin.y)} r="3.6" {...line} strokeWidth="1.4" />
        )}
      </>
    )
  }
  return (
    <figure className="both-outlines">
      <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} role="img" aria-label="Both plans">
        {drawn(mine, false)}
        {drawn(theirs, true)}
      </svg>
      <figcaption className="quiet">in lines: on the left; dashed: there</figcaption>
    </figure>
  )
}

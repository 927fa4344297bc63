import type { Card } from '../api/client'
import { Dimension } from '../drawing/Dimension'
import { bedSize } from '../drawing/outline'
import { type View, toX, toY } from '../drawing/view'
import { unknown } from './sheetLayout'

interface BedDimensionsProps {
  card: Card
  layout: { plan: View; front: View }
  /** What a dimension shows and does. */
  dimension: (
    pointer: string,
    value: number | undefined,
    label: string,
    at: { x: number; y: number },
  ) => { value: string; lit: boolean; onPoint: (on: boolean) => void; onEdit: () => void }
}

/** Width, depth and height of the machine, keyed to the schedule. */
export function BedDimensions({ card, layout: { plan, front }, dimension }: BedDimensionsProps) {
  const { width, depth } = bedSize(card.envelope?.bed)
  const height = card.envelope?.height ?? undefined
  const [bw, bd, bh] = [width ?? unknown, depth ?? unknown, height ?? unknown]
  return (
    <>
      <Dimension
        letter="C"
        from={[toX(front, 0), toY(front, bh)]}
        to={[toX(front, 0), toY(front, 0)]}
        at={toX(front, 0) - 44}
        {...dimension('/envelope/height', height, 'height', { x: toX(front, 0) - 44, y: toY(front, bh / 2) })}
      />
      {(width === undefined || depth === undefined) && (
        <text x={toX(plan, bw / 2)} y={toY(plan, bd / 2)} textAnchor="middle" className="quiet-text">
          drawn once width and depth are there
        </text>
      )}
      {width !== undefined && (
        <Dimension
          letter="A"
          from={[toX(plan, 0), toY(plan, 0)]}
          to={[toX(plan, bw), toY(plan, 0)]}
          at={toY(plan, 0) + 34}
          {...dimension('/envelope/bed/width', width, 'width', { x: toX(plan, bw / 2), y: toY(plan, 0) + 34 })}
        />
      )}
      {depth !== undefined && (
        <Dimension
          letter="B"
          from={[toX(plan, 0), toY(plan, bd)]}
          to={[toX(plan, 0), toY(plan, 0)]}
          at={toX(plan, 0) - 44}
          {...dimension('/envelope/bed/depth', depth, 'depth', { x: toX(plan, 0) - 44, y: toY(plan, bd / 2) })}
        />
      )}
    </>
  )
}

import { useState } from 'react'
import { bedSize } from '../drawing/outline'
import { TypedOver } from '../drawing/TypedOver'
import { toX, toY, type View } from '../drawing/view'
import { plain } from '../units/format'
import { around, boxOnBed } from './PartOnBed'
import { gapsOf, type Gaps } from './snap'
import { withFellows } from './together'
import { useTrial } from './TrialContext'

/** What the gaps of what is selected are, to its nearest neighbours or the bed's edges. */
export function useGaps() {
  const { trial, card, meshes, selected } = useTrial('trial', 'card', 'meshes', 'selected')
  const parts = trial.document.parts ?? []
  const taken = withFellows(parts, selected)
  const boxes = parts.map((part, i) => boxOnBed(meshes[i], part))
  const own = taken.flatMap((i) => (boxes[i] ? [boxes[i]] : []))
  if (own.length === 0 || own.length !== taken.length) return undefined
  const { width = 0, depth = 0 } = bedSize(card.document.envelope?.bed)
  const others = boxes.flatMap((box, i) => (box && !taken.includes(i) ? [box] : []))
  const box = around(own)
  return { box, gaps: gapsOf(box, others, { width, depth }) }
}

/** The nearer gap of each direction as a dimension, to be typed over. */
export function GapsOnPlan({ view, onEdit }: { view: View; onEdit: (side: keyof Gaps) => void }) {
  const found = useGaps()
  if (!found) return null
  const { box, gaps } = found
  const [midX, midY] = [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2]
  const shown = [nearer(gaps, 'left', 'right'), nearer(gaps, 'front', 'back')]
  return (
    <g className="gaps">
      {shown.map((side) => {
        const { from, to, distance } = gaps[side]
        if (distance < 0.05) return null
        const level = side === 'left' || side === 'right'
        const [x1, y1, x2, y2] = level ? [from, midY, to, midY] : [midX, from, midX, to]
        const [tx, ty] = [(toX(view, x1) + toX(view, x2)) / 2, (toY(view, y1) + toY(view, y2)) / 2]
        return (
          <g
            key={side}
            className="gap"
            role="button"
            tabIndex={0}
            aria-label={`${plain(distance, 1)} mm to the ${side}, to be typed over`}
            data-gap={side}
            onPointerDown={(event) => event.stopPropagation()}
            onClick={() => onEdit(side)}
            onKeyDown={(event) => (event.key === 'Enter' || event.key === ' ') && onEdit(side)}
          >
            <path d={`M${toX(view, x1)} ${toY(view, y1)}L${toX(view, x2)} ${toY(view, y2)}`} />
            <text x={tx + (level ? 0 : 4)} y={ty - (level ? 4 : 0)} textAnchor={level ? 'middle' : 'start'}>
              {plain(distance, 1)}
            </text>
          </g>
        )
      })}
    </g>
  )
}

const nearer = <Side extends keyof Gaps>(gaps: Gaps, one: Side, other: Side) => (gaps[one].distance <= gaps[other].distance ? one : other)

/** The field in which a gap is typed over. */
export function GapField({ view, side, onClose }: { view: View; side: keyof Gaps; onClose: () => void }) {
  const { selected, hands } = useTrial('selected', 'hands')
  const found = useGaps()
  const [first] = useState(() => found?.gaps[side].distance)
  if (!found || first === undefined) return null
  const { box, gaps } = found
  const level = side === 'left' || side === 'right'
  const middle = (gaps[side].from + gaps[side].to) / 2
  return (
    <TypedOver
      x={toX(view, level ? middle : (box[0] + box[2]) / 2)}
      y={toY(view, level ? (box[1] + box[3]) / 2 : middle)}
      label={`gap to the ${side}`}
      value={Math.round(gaps[side].distance * 100) / 100}
      limits={{ label: 'gap', unit: 'mm', least: 0, most: 10000 }}
      onChange={(wanted) => {
        if (wanted === undefined) return
        const by = wanted - gaps[side].distance
        const sign = side === 'left' || side === 'front' ? 1 : -1
        hands.move(selected, level ? sign * by : 0, level ? 0 : sign * by)
      }}
      onClose={onClose}
    />
  )
}

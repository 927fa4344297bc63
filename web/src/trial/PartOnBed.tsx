import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { TrialPart } from '../api/client'
import { bedSize, boxOf, ringsPath } from '../drawing/outline'
import { toX, toY, type View, type XY } from '../drawing/view'
import { plain } from '../units/format'
import { PlanHandles } from './Handles'
import { placedOutline } from './placement'
import { snapped, type Box } from './snap'
import { fellowsOf, moved, withFellows } from './together'
import { useTrial } from './TrialContext'
import { stepOf } from './useHeld'

interface PartOnBedProps {
  index: number
  part: TrialPart
  view: View
  bad: boolean
  faint: boolean
}

const snapReach = 6
const grid = 0.1

/** A part from above, to be moved: it snaps to what is near, with Alt it goes freely. */
export function PartOnBed({ index, part, view, bad, faint }: PartOnBedProps) {
  const { trial, card, meshes, selected, select, chosen, dragging, hands } = useTrial(
    'trial',
    'card',
    'meshes',
    'selected',
    'select',
    'chosen',
    'dragging',
    'hands',
  )
  const mesh = meshes[index]
  const from = useRef<{ pointer: XY; parts: TrialPart[]; box: Box; others: Box[]; indices: readonly number[] }>(undefined)
  // a press has chosen already when the focus comes
  const pressed = useRef(false)
  const [held, setHeld] = useState(false)
  if (!mesh) return null
  const rings = placedOutline(mesh, part)
  const isSelected = selected.includes(index)
  const down = (event: PointerEvent<SVGGElement>) => {
    if (event.button !== 0) return
    event.stopPropagation()
    pressed.current = true
    if (event.shiftKey || event.ctrlKey || event.metaKey) {
      select(isSelected ? selected.filter((i) => i !== index) : [...selected, index])
      return
    }
    event.currentTarget.setPointerCapture(event.pointerId)
    const indices = isSelected ? [...selected.filter((i) => i !== index), index] : [index]
    const parts = trial.document.parts ?? []
    const taken = withFellows(parts, indices)
    const boxes = parts.map((one, i) => boxOnBed(meshes[i], one))
    const own = taken.flatMap((i) => (boxes[i] ? [boxes[i]] : []))
    from.current = {
      pointer: [event.clientX, event.clientY],
      parts,
      box: around(own),
      others: boxes.flatMap((box, i) => (box && !taken.includes(i) ? [box] : [])),
      indices,
    }
    select(indices)
    setHeld(true)
    dragging(true)
  }
  const drag = (event: PointerEvent<SVGGElement>) => {
    if (!from.current) return
    const { pointer, parts, box, others, indices } = from.current
    const by: XY = [(event.clientX - pointer[0]) / view.scale, -(event.clientY - pointer[1]) / view.scale]
    const { width = 0, depth = 0 } = bedSize(card.document.envelope?.bed)
    const [dx, dy] = snapped(box, by, others, { width, depth }, event.altKey ? 0 : snapReach / view.scale, grid)
    const after = moved(parts, indices, dx, dy)
    trial.change(
      (before) => ({ ...before, parts: before.parts?.map((one, i) => ({ ...one, x: after[i]?.x ?? one.x, y: after[i]?.y ?? one.y })) }),
      `part ${index}`,
    )
  }
  const up = () => {
    pressed.current = false
    from.current = undefined
    setHeld(false)
    dragging(false)
  }
  const key = (event: KeyboardEvent) => {
    const step = stepOf(event)
    const [dx, dy] = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key] ?? [0, 0]
    if (!dx && !dy) return
    event.preventDefault()
    hands.move(isSelected ? selected : [index], dx!, dy!)
  }
  const together = fellowsOf(trial.document.parts ?? [], index).length > 1 ? ', with what belongs to it' : ''
  return (
    <g
      className={classesOf({ chosen: chosen === index, selected: isSelected, bad, faint, held })}
      tabIndex={0}
      role="button"
      aria-label={`${part.name}, part ${index + 1}, at ${plain(part.x ?? 0, 1)}, ${plain(part.y ?? 0, 1)}${together}`}
      aria-pressed={isSelected}
      data-part={index}
      onPointerDown={down}
      onPointerMove={drag}
      onPointerUp={up}
      onPointerCancel={up}
      onFocus={() => !pressed.current && !isSelected && select([index])}
      onKeyDown={key}
    >
      <path d={ringsPath(rings, view)} fillRule="evenodd" />
      {chosen === index && selected.length === 1 && <PlanHandles index={index} part={part} view={view} />}
      <circle cx={toX(view, part.x ?? 0)} cy={toY(view, part.y ?? 0)} r="10" />
      <text x={toX(view, part.x ?? 0)} y={toY(view, part.y ?? 0) + 4} textAnchor="middle">
        {index + 1}
      </text>
    </g>
  )
}

const classesOf = (states: Record<string, boolean>) => ['part', ...Object.keys(states).filter((name) => states[name])].join(' ')

/** The box of a part where it stands; undefined as long as its mesh is not there. */
export function boxOnBed(mesh: Parameters<typeof placedOutline>[0] | undefined, part: TrialPart): Box | undefined {
  const outline = mesh ? placedOutline(mesh, part).flat() : []
  return outline.length > 0 ? boxOf(outline) : undefined
}

/** The box round boxes. */
export const around = (boxes: readonly Box[]): Box => [
  Math.min(...boxes.map((b) => b[0])),
  Math.min(...boxes.map((b) => b[1])),
  Math.max(...boxes.map((b) => b[2])),
  Math.max(...boxes.map((b) => b[3])),
]

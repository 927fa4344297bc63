import type { View } from '../drawing/view'
import { plain } from '../units/format'
import { moved } from './together'
import { useHeld } from './useHeld'
import { useTrial } from './TrialContext'

interface PartOnFrontProps {
  index: number
  view: View
  box: { left: number; right: number; top: number; bottom: number }
  bad: boolean
}

/** A part lies on the bed again where it comes this near, mm. */
const settles = 0.4

/** A part from the front: moved aside, lifted off the bed or sunk into it, with all that belongs to it. */
export function PartOnFront({ index, view, box, bad }: PartOnFrontProps) {
  const { trial, selected, select } = useTrial('trial', 'selected', 'select')
  const part = trial.document.parts![index]!
  const held = useHeld(
    view.scale,
    () => trial.document.parts ?? [],
    (start, right, up) => {
      const lift = (start[index]?.lift ?? 0) + up
      const rise = Math.abs(lift) < settles ? -(start[index]?.lift ?? 0) : Math.round(up * 10) / 10
      const after = moved(start, [index], Math.round(right * 10) / 10, 0, rise)
      trial.change(
        (now) => ({ ...now, parts: now.parts?.map((one, i) => ({ ...one, x: after[i]?.x ?? one.x, lift: after[i]?.lift ?? one.lift })) }),
        `lift ${index}`,
      )
    },
  )
  const isSelected = selected.includes(index)
  return (
    <rect
      {...held}
      onPointerDown={(event) => {
        select([index])
        held.onPointerDown(event)
      }}
      x={box.left}
      y={box.top}
      width={box.right - box.left}
      height={Math.max(1, box.bottom - box.top)}
      className={`part-box${bad ? ' bad' : ''}${isSelected ? ' selected' : ''}`}
      tabIndex={0}
      role="button"
      aria-pressed={isSelected}
      aria-label={`${part.name} from the front, part ${index + 1}, ${plain(part.lift ?? 0)} mm above the bed`}
      data-front={index}
    />
  )
}

import { toX, toY, type View } from '../drawing/view'
import { plain } from '../units/format'
import { useHeld } from './useHeld'
import { useTrial } from './TrialContext'

interface CutOnFrontProps {
  view: View
  /** Of the parts, px. */
  boxes: readonly { index: number; left: number; right: number; top: number; bottom: number }[]
}

/** How far a plane stands out over the part that it cuts, px. */
const over = 14
const least = 0.1

/** The plane of a cut from the front, dragged and stepped: a level one, or one from the left through a part that is not turned. */
export function CutOnFront({ view, boxes }: CutOnFrontProps) {
  const { cutPlane, planCut, meshes, trial } = useTrial('cutPlane', 'planCut', 'meshes', 'trial')
  const along = cutPlane?.along === 'x' ? 'x' : 'z'
  const most = meshes[cutPlane?.part ?? -1]?.size[along === 'x' ? 0 : 2] ?? 0
  const held = useHeld(
    view.scale,
    () => cutPlane,
    (start, right, up) => {
      if (!start) return
      const at = Math.round((start.at + (along === 'x' ? right : up)) * 10) / 10
      planCut({ ...start, at: Math.min(most - least, Math.max(least, at)) })
    },
  )
  const box = boxes.find(({ index }) => index === cutPlane?.part)
  const part = cutPlane && trial.document.parts?.[cutPlane.part]
  if (!cutPlane || !box || !part || cutPlane.along === 'y' || (cutPlane.along === 'x' && (part.turn ?? 0) % 360 !== 0)) return null
  const place = along === 'x' ? box.left + cutPlane.at * view.scale : toY(view, (part.lift ?? 0) + cutPlane.at)
  const line =
    along === 'x'
      ? `M${place} ${box.top - over}V${toY(view, 0) + over / 2}`
      : `M${box.left - over} ${place}H${Math.max(box.right + over, toX(view, 0))}`
  return (
    <g
      {...held}
      className={`cut-plane along-${along}`}
      tabIndex={0}
      role="slider"
      aria-label={`cut of ${part.name}`}
      aria-valuemin={0}
      aria-valuemax={most}
      aria-valuenow={cutPlane.at}
      aria-valuetext={`${plain(cutPlane.at, 1)} of ${plain(most, 1)} mm`}
    >
      <path d={line} className="grip" />
      <path d={line} className="plane" />
      <text x={along === 'x' ? place + 4 : box.right + over + 4} y={along === 'x' ? box.top - over + 8 : place + 4}>
        cut {plain(cutPlane.at, 1)}
      </text>
    </g>
  )
}

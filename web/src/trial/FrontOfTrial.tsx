import type { Card } from '../api/client'
import { Elevation } from '../drawing/Elevation'
import { bedSize, boxOf } from '../drawing/outline'
import { toX, toY, type View } from '../drawing/view'
import { plain } from '../units/format'
import { FrontHandle } from './Handles'
import { HeadOnFront } from './HeadAtMoment'
import { PartOnFront } from './PartOnFront'
import { ZonesOnFront } from './ZonesOnDrawing'
import { CutOnFront } from './CutOnFront'
import { placedOutline } from './placement'
import { useStep } from './useStep'
import { useTrial } from './TrialContext'

/** The parts from the front, with the height of the layer that is looked at. */
export function FrontOfTrial({ card: tight, view, cutAt }: { card: Card; view: View; cutAt: number }) {
  const { card, trial, meshes, fits, layers, layer, chosen, order, moment } = useTrial(
    'card',
    'trial',
    'meshes',
    'fits',
    'layers',
    'layer',
    'chosen',
    'order',
    'moment',
  )
  const parts = trial.document.parts ?? []
  const { width = 200 } = bedSize(card.document.envelope?.bed)
  const height = card.document.envelope?.height ?? 200
  const shown = layers[layer]
  const worst = moment === undefined ? undefined : order?.moments[moment]
  const step = useStep()
  const head = worst ?? step?.head
  const boxes = parts.flatMap((part, index) => {
    const mesh = meshes[index]
    if (!mesh) return []
    const [minX, , maxX] = boxOf(placedOutline(mesh, part).flat())
    const bad = fits?.[index]?.fits === false
    const lift = part.lift ?? 0
    const [top, bottom] = [toY(view, lift + mesh.size[2]!), toY(view, lift)]
    return [{ index, left: toX(view, minX), right: toX(view, maxX), top, bottom, bad }]
  })
  return (
    <>
      <text x={toX(view, 0)} y={cutAt - 12} className="title">
        FROM THE FRONT
      </text>
      <Elevation card={tight} view={view} cutAt={cutAt}>
        {boxes.map(({ index, bad, ...box }) => (
          <PartOnFront key={index} index={index} view={view} box={box} bad={bad} />
        ))}
        <ZonesOnFront view={view} width={width} />
        <CutOnFront view={view} boxes={boxes} />
        {numbersAt(boxes).map(({ x, numbers }) => (
          <text key={numbers} x={x} y={toY(view, 0) - 4} textAnchor="middle">
            {numbers}
          </text>
        ))}
        {boxes.map(
          ({ index, left, right, top }) =>
            chosen === index &&
            parts[index] && (
              <FrontHandle key={index} index={index} part={parts[index]} left={left} right={right} top={top} floor={toY(view, 0)} />
            ),
        )}
        {head && <HeadOnFront card={card.document} moment={head} view={view} top={Math.max(cutAt + 4, toY(view, height))} width={width} />}
        {shown && !worst && (
          <>
            <path d={`M${toX(view, 0)} ${toY(view, shown.top)}H${toX(view, width)}`} className="layer-line" />
            <text x={toX(view, width) + 8} y={toY(view, shown.top) + 4} className="layer-text">
              {plain(shown.top)}
            </text>
          </>
        )}
      </Elevation>
    </>
  )
}

/** The numbers of the parts below their boxes; those that stand behind each other share a place. */
function numbersAt(boxes: { index: number; left: number; right: number }[]): { x: number; numbers: string }[] {
  const places: { x: number; numbers: string }[] = []
  for (const { index, left, right } of boxes) {
    const x = (left + right) / 2
    const near = places.find((place) => Math.abs(place.x - x) < 14)
    if (near) near.numbers += `, ${index + 1}`
    else places.push({ x, numbers: String(index + 1) })
  }
  return places
}

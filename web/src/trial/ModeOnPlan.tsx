import type { ModeAnswer } from '../api/client'
import { boxOf, ringsPath } from '../drawing/outline'
import { toX, toY, type View, type XY } from '../drawing/view'
import { placedOutline } from './placement'
import { useTrial } from './TrialContext'

/** Where the first nozzle may print in this mode, and the second parts as ghosts. */
export function ModeOnPlan({ plan, view }: { plan: ModeAnswer; view: View }) {
  const { trial, meshes } = useTrial('trial', 'meshes')
  const { second } = plan
  return (
    <g className="mode-on-plan">
      <path d={ringsPath(plan.region, view)} className="mode-region" />
      {second?.mirrored && <path d={`M${toX(view, plan.mirrorAt)} ${toY(view, 0)}V0`} className="mirror" />}
      {second &&
        (trial.document.parts ?? []).map((part, i) => {
          const mesh = meshes[i]
          if (!mesh) return null
          const rings = placedOutline(mesh, part).map((ring) =>
            ring.map(([x, y]): XY => [second.mirrored ? second.x - x : second.x + x, second.y + y]),
          )
          const [minX, minY, maxX, maxY] = boxOf(rings.flat())
          return (
            <g key={i} className="ghost" aria-label={`${second.mirrored ? 'mirror image' : 'copy'} of ${part.name}`}>
              <path d={ringsPath(rings, view)} fillRule="evenodd" />
              <text x={toX(view, (minX + maxX) / 2)} y={toY(view, (minY + maxY) / 2) + 4} textAnchor="middle">
                {i + 1}′
              </text>
            </g>
          )
        })}
    </g>
  )
}

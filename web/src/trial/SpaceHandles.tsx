import type { TrialPart } from '../api/client'
import type { XY } from '../drawing/view'
import { onLevel, onPlane, pictured, type Look, type XYZ } from '../pictorial/look'
import { Handle, useHandled } from './Handles'
import { useTrial } from './TrialContext'

interface SpaceHandlesProps {
  index: number
  part: TrialPart
  look: Look
  width: number
  height: number
}

/** How far handles stand off the part, px. */
const off = 18
/** Handles of tilts clear the part's number, px, and the second clears the first. */
const above = 28
const second = 24

/** Handles of a part in space: on the bed one turns it and one scales it, above it two tilt it about its own X and Y. */
export function SpaceHandles({ index, part, look, width, height }: SpaceHandlesProps) {
  const { meshes } = useTrial('meshes')
  const handled = useHandled(index)
  const mesh = meshes[index]
  if (!mesh) return null
  const at = (point: XYZ) => pictured(look, point, width, height)
  const foot: XYZ = [part.x ?? 0, part.y ?? 0, Math.max(0, part.lift ?? 0)]
  const middle: XYZ = [foot[0], foot[1], (part.lift ?? 0) + mesh.size[2]! / 2]
  const half = Math.hypot(mesh.size[0]!, mesh.size[1]!) / 2
  const angle = ((part.turn ?? 0) * Math.PI) / 180
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  const turnAt: XYZ = [foot[0] - (half + off / look.scale) * sin, foot[1] + (half + off / look.scale) * cos, foot[2]]
  const scaleAt: XYZ = [foot[0] + half * Math.SQRT1_2, foot[1] - half * Math.SQRT1_2, foot[2]]
  const [footAt, middleAt] = [at(foot), at(middle)]
  /** From the foot, mm on the level, for a place of the picture. */
  const onBed = ([x, y]: XY) => onLevel(look, x - footAt[0], y - footAt[1])
  const tilts = [
    { about: 'y' as const, along: [cos, sin, 0] as XYZ, reach: above },
    { about: 'x' as const, along: [sin, -cos, 0] as XYZ, reach: above + second },
  ]
  return (
    <svg className="pictorial-handles" viewBox={`0 0 ${width} ${height}`}>
      {onPlane(look, [1, 0, 0], [0, 1, 0], 1, 1) && (
        <g className="handles">
          <line x1={footAt[0]} y1={footAt[1]} x2={at(turnAt)[0]} y2={at(turnAt)[1]} />
          <Handle
            x={at(turnAt)[0]}
            y={at(turnAt)[1]}
            name="space-turn"
            title="turn in steps of 15°, with Shift freely"
            onDrag={(to, free) => {
              const [x, y] = onBed(to)
              handled.turn(Math.atan2(-x, y), free)
            }}
          />
          <Handle
            x={at(scaleAt)[0]}
            y={at(scaleAt)[1]}
            square
            name="space-scale"
            title="scale evenly in steps of 1 %, with Shift of 0.1 %"
            onDrag={(to, free, from) =>
              handled.scale(Math.hypot(...onBed(to)) / Math.max(0.1, Math.hypot(...onBed(from))), free, from.join())
            }
          />
        </g>
      )}
      {tilts.map(({ about, along, reach }) => {
        if (!onPlane(look, along, [0, 0, 1], 1, 1)) return null
        const tilted = ((part.tilt?.[about] ?? 0) * Math.PI) / 180
        const arm = mesh.size[2]! / 2 + reach / look.scale
        const [x, y] = at([
          middle[0] + arm * Math.sin(tilted) * along[0],
          middle[1] + arm * Math.sin(tilted) * along[1],
          middle[2] + arm * Math.cos(tilted),
        ])
        return (
          <g key={about} className="handles">
            <line x1={middleAt[0]} y1={middleAt[1]} x2={x} y2={y} />
            <Handle
              x={x}
              y={y}
              name={`space-tilt-${about}`}
              title={`tilt about ${about.toUpperCase()} in steps of 15°, with Shift freely; the part stays on the bed`}
              onDrag={(to, free) => {
                const gone = onPlane(look, along, [0, 0, 1], to[0] - middleAt[0], to[1] - middleAt[1])
                if (gone) handled.tilt(about, Math.atan2(gone[0], gone[1]), free)
              }}
            />
          </g>
        )
      })}
    </svg>
  )
}

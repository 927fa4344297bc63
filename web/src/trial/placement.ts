import type { MeshFacts, TrialPart } from '../api/client'
import { boxOf } from '../drawing/outline'
import type { XY } from '../drawing/view'

/** A part's outline where it stands: turned about Z, the middle of the turned bounding box at x, y. */
export function placedOutline(mesh: MeshFacts, part: TrialPart): XY[][] {
  const angle = ((part.turn ?? 0) * Math.PI) / 180
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  const turned = mesh.outline.map((ring) => ring.map(([x, y]): XY => [cos * x! - sin * y!, sin * x! + cos * y!]))
  const all = turned.flat()
  if (all.length === 0) return []
  const [minX, minY, maxX, maxY] = boxOf(all)
  const [dx, dy] = [(part.x ?? 0) - (minX + maxX) / 2, (part.y ?? 0) - (minY + maxY) / 2]
  return turned.map((ring) => ring.map(([x, y]): XY => [x + dx, y + dy]))
}

/** A part's ratios of size, 1 where nothing is said. */
export const scaleOf = (part: TrialPart) => ({ x: part.scale?.x ?? 1, y: part.scale?.y ?? 1, z: part.scale?.z ?? 1 })

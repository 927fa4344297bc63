import type { Card, MeshFacts, TrialPart } from '../api/client'
import { bedSize, boxOf } from '../drawing/outline'
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

type Bed = NonNullable<Card['envelope']>['bed']

/** Parts of one file in the middle of a bed; they keep their places to each other. */
export function partsOf(fileName: string, meshes: MeshFacts[], bed: Bed): TrialPart[] {
  const { width = 0, depth = 0 } = bedSize(bed)
  const [midX, midY] = [0, 1].map((k) => middleOf(meshes.flatMap((mesh) => mesh.at?.[k] ?? [])))
  const stem =
    fileName
      .replace(/\.[^.]*$/, '')
      .replaceAll(/[-_]+/g, ' ')
      .slice(0, 180) || 'part'
  return meshes.map((mesh, i) => ({
    name: mesh.name?.slice(0, 200) || (meshes.length > 1 ? `${stem} ${i + 1}` : stem),
    file: mesh.hash,
    x: settle(width / 2 + (mesh.at ? mesh.at[0]! - midX! : 0)),
    y: settle(depth / 2 + (mesh.at ? mesh.at[1]! - midY! : 0)),
    turn: 0,
  }))
}

const middleOf = (values: number[]) => (values.length === 0 ? 0 : (Math.min(...values) + Math.max(...values)) / 2)
const settle = (value: number) => Math.round(value * 1000) / 1000

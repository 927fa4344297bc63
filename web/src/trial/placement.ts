import type { Card, MeshFacts, TrialPart } from '../api/client'
import { bedSize, boxOf } from '../drawing/outline'
import type { XY } from '../drawing/view'
import { newAssembly } from './assembly'

/** A part's outline where it stands: turned about Z, the middle of the turned bounding box at x, y. */
export function placedOutline(mesh: MeshFacts, part: TrialPart): XY[][] {
  const turned = turnedOutline(mesh, part.turn ?? 0)
  const all = turned.flat()
  if (all.length === 0) return []
  const [minX, minY, maxX, maxY] = boxOf(all)
  const [dx, dy] = [(part.x ?? 0) - (minX + maxX) / 2, (part.y ?? 0) - (minY + maxY) / 2]
  return turned.map((ring) => ring.map(([x, y]): XY => [x + dx, y + dy]))
}

/** A mesh's outline turned about the middle of its unturned box, degrees. */
export function turnedOutline(mesh: MeshFacts, turn: number): XY[][] {
  const angle = (turn * Math.PI) / 180
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  return mesh.outline.map((ring) => ring.map(([x, y]): XY => [cos * x! - sin * y!, sin * x! + cos * y!]))
}

/** A part's ratios of size, 1 where nothing is said, and whether it is mirrored. */
export const scaleOf = (part: TrialPart) => ({
  x: part.scale?.x ?? 1,
  y: part.scale?.y ?? 1,
  z: part.scale?.z ?? 1,
  mirrored: part.scale?.mirrored ?? false,
})

/** How a part stands, as the server is asked about its mesh. */
export function stanceOf(part: TrialPart) {
  const { x, y, z, mirrored } = scaleOf(part)
  return { scaleX: x, scaleY: y, scaleZ: z, mirrored, tiltX: part.tilt?.x ?? 0, tiltY: part.tilt?.y ?? 0 }
}

type Bed = NonNullable<Card['envelope']>['bed']

/** Parts of one file in the middle of a bed; several are an assembly: they keep their places to each other. */
export function partsOf(fileName: string, meshes: MeshFacts[], bed: Bed): TrialPart[] {
  const several = meshes.length > 1
  const assembly = several ? newAssembly() : undefined
  const floor = Math.min(...meshes.map((mesh) => mesh.at?.[2] ?? 0))
  const { width = 0, depth = 0 } = bedSize(bed)
  const [midX, midY] = [0, 1].map((k) => middleOfAll(meshes.flatMap((mesh) => mesh.at?.[k] ?? [])))
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
    ...(several && { assembly, lift: settle((mesh.at?.[2] ?? 0) - floor) }),
  }))
}

/** Parts where they were drawn, the lowest on the bed. */
export function placesAsDrawn(parts: readonly TrialPart[], meshes: readonly MeshFacts[]): TrialPart[] {
  const floor = Math.min(...meshes.map((mesh) => mesh.at?.[2] ?? 0))
  return parts.map((part, i) => {
    const [x = 0, y = 0, z = 0] = meshes[i]?.at ?? []
    return { ...part, x: settle(x), y: settle(y), lift: settle(z - floor) }
  })
}

/** The middle between the least and the greatest; 0 of none. */
export const middleOfAll = (values: readonly number[]) => (values.length === 0 ? 0 : (Math.min(...values) + Math.max(...values)) / 2)
/** A length to a thousandth of a millimetre. */
export const settle = (value: number) => Math.round(value * 1000) / 1000

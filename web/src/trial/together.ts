import type { MeshFacts, TrialPart } from '../api/client'
import { boxOf } from '../drawing/outline'
import type { XY } from '../drawing/view'
import { newAssembly } from './assembly'
import { middleOfAll, scaleOf, settle, turnedOutline } from './placement'

/** A part with those that belong to it, by place in the list. */
export function fellowsOf(parts: readonly TrialPart[], index: number): number[] {
  const assembly = parts[index]?.assembly
  return parts.flatMap((part, i) => (i === index || (assembly && part.assembly === assembly) ? [i] : []))
}

/** Parts with all that belong to them. */
export const withFellows = (parts: readonly TrialPart[], indices: readonly number[]) =>
  [...new Set(indices.flatMap((index) => fellowsOf(parts, index)))].sort((a, b) => a - b)

/** Parts moved, with all that belong to them. */
export function moved(parts: readonly TrialPart[], indices: readonly number[], dx: number, dy: number, dz = 0): TrialPart[] {
  const all = new Set(withFellows(parts, indices))
  return parts.map((part, i) =>
    all.has(i)
      ? {
          ...part,
          x: settle((part.x ?? 0) + dx),
          y: settle((part.y ?? 0) + dy),
          ...(dz === 0 ? {} : { lift: settle((part.lift ?? 0) + dz) }),
        }
      : part,
  )
}

/** A part turned by an angle, and all that belong to it about the middle of their common box. */
export function turned(
  parts: readonly TrialPart[],
  meshes: readonly (MeshFacts | undefined)[],
  index: number,
  degrees: number,
): TrialPart[] {
  const fellows = fellowsOf(parts, index)
  if (fellows.length === 1)
    return parts.map((part, i) => (i === index ? { ...part, turn: settle(((part.turn ?? 0) + degrees + 720) % 360) } : part))
  const boxes = fellows.map((i) => boxOf(standing(parts[i]!, meshes[i])))
  const pivot = [0, 1].map((k) => (Math.min(...boxes.map((b) => b[k]!)) + Math.max(...boxes.map((b) => b[k + 2]!))) / 2) as [number, number]
  return parts.map((part, i) => (fellows.includes(i) ? turnedAbout(part, meshes[i], pivot, degrees) : part))
}

/** A part scaled evenly by a ratio, and all that belong to it with their distances, about the middle of their places and their floor. */
export function scaled(parts: readonly TrialPart[], index: number, by: number): TrialPart[] {
  const fellows = fellowsOf(parts, index)
  const [x, y] = (['x', 'y'] as const).map((axis) => middleOfAll(fellows.map((i) => parts[i]![axis] ?? 0))) as [number, number]
  const floor = Math.min(...fellows.map((i) => parts[i]!.lift ?? 0))
  const from = (origin: number, place: number) => settle(origin + by * (place - origin))
  return parts.map((part, i) => {
    if (!fellows.includes(i)) return part
    const scale = scaleOf(part)
    const [alongX, alongY, alongZ] = [scale.x, scale.y, scale.z].map((ratio) => Math.round(ratio * by * 1e5) / 1e5) as [
      number,
      number,
      number,
    ]
    return {
      ...part,
      x: from(x, part.x ?? 0),
      y: from(y, part.y ?? 0),
      ...(fellows.length > 1 && { lift: from(floor, part.lift ?? 0) }),
      scale: { ...scale, x: alongX, y: alongY, z: alongZ },
    }
  })
}

/** A part turned about a point. Its place is the middle of its turned box, which turns otherwise than its body. */
function turnedAbout(part: TrialPart, mesh: MeshFacts | undefined, [px, py]: XY, degrees: number): TrialPart {
  const [before, after] = [part.turn ?? 0, (part.turn ?? 0) + degrees]
  const [bx, by] = middleOf(mesh, before)
  const [ax, ay] = middleOf(mesh, after)
  const angle = (degrees * Math.PI) / 180
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  const [ox, oy] = [(part.x ?? 0) - bx - px, (part.y ?? 0) - by - py]
  return {
    ...part,
    x: settle(px + cos * ox - sin * oy + ax),
    y: settle(py + sin * ox + cos * oy + ay),
    turn: settle((after + 720) % 360),
  }
}

/** Where the middle of the turned box lies from the point of the body that is the middle of its unturned one. */
function middleOf(mesh: MeshFacts | undefined, turn: number): XY {
  if (!mesh || mesh.outline.length === 0) return [0, 0]
  const [minX, minY, maxX, maxY] = boxOf(turnedOutline(mesh, turn).flat())
  return [(minX + maxX) / 2, (minY + maxY) / 2]
}

function standing(part: TrialPart, mesh: MeshFacts | undefined): XY[] {
  const [x, y] = [part.x ?? 0, part.y ?? 0]
  if (!mesh || mesh.outline.length === 0) return [[x, y]]
  const outline = turnedOutline(mesh, part.turn ?? 0).flat()
  const [minX, minY, maxX, maxY] = boxOf(outline)
  return [
    [x - (maxX - minX) / 2, y - (maxY - minY) / 2],
    [x + (maxX - minX) / 2, y + (maxY - minY) / 2],
  ]
}

/** Parts as they are added to a trial: assemblies of their own, whatever they were called where they come from. */
export function asAdded(parts: readonly TrialPart[]): TrialPart[] {
  const words = new Map<string, string>()
  return parts.map((part) => {
    const { assembly } = part
    if (!assembly) return { ...part, id: undefined }
    if (!words.has(assembly)) words.set(assembly, newAssembly())
    return { ...part, id: undefined, assembly: words.get(assembly) }
  })
}

import type { RunLine } from '../api/client'
import { layerAt } from './timeAxis'
import type { Layer, LayerPath } from './layers'

/** The program line with which every layer begins; of one without lines, that of the layer before. */
export function firstLines(layers: readonly Layer[]): number[] {
  let last = 1
  return layers.map((layer) => (last = layer.paths[0]?.first ?? last))
}

/** The layer to which a program line belongs; the first for what comes before all. */
export const layerOf = (firsts: readonly number[], line: number) => Math.max(0, layerAt(firsts, line))

/**
 * The next line on which something moves, or the one before.
 * @param lines The lines that are known.
 * @param from The line that is looked at.
 * @param way 1 for onwards, −1 for back.
 * @param count Lines of the program.
 * @returns Where none is known to move, the last that is known.
 */
export function nextMove(lines: ReadonlyMap<number, RunLine>, from: number, way: 1 | -1, count: number): number {
  let at = from
  for (let next = from + way; next >= 1 && next <= count; next += way) {
    const line = lines.get(next)
    if (!line) break
    at = next
    if (line.path) break
  }
  return at
}

/** Where the nozzle is after a line: where it went last, as far as is known. */
export function tipAfter(lines: ReadonlyMap<number, RunLine>, line: number): [number, number, number] | undefined {
  for (let at = line; lines.has(at); at--) {
    const path = lines.get(at)?.path
    if (path) return [path[3]!, path[4]!, path[5]!]
  }
  return undefined
}

/** The line of plastic to which a program line belongs: the last of the layer that has begun. */
export function pathAt(layer: Layer | undefined, line: number): LayerPath | undefined {
  const paths = layer?.paths ?? []
  return paths[
    layerAt(
      paths.map((path) => path.first),
      line,
    )
  ]
}

/** How far a line of plastic has come: x, y, x, y, … up to a program line; empty where it is not known. */
export function laidOf(path: LayerPath | undefined, lines: ReadonlyMap<number, RunLine>, line: number): number[] {
  const points: number[] = []
  for (let at = path?.first ?? line + 1; at <= Math.min(line, path?.last ?? 0); at++) {
    const move = lines.get(at)
    if (!move) return []
    if (!move.path) continue
    if (points.length === 0) points.push(move.path[0]!, move.path[1]!)
    points.push(move.path[3]!, move.path[4]!)
  }
  return points
}

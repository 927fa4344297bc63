import type { XY } from '../drawing/view'

/** A box on the bed: least x, least y, greatest x, greatest y, mm. */
export type Box = readonly [number, number, number, number]

/**
 * The displacement nearest to a wanted one that brings an edge or the middle of a box onto a line: edges and middles of others, the bed's
 * middle. Each direction snaps by itself; where nothing is within reach it lies on the grid.
 */
export function snapped(
  box: Box,
  [dx, dy]: XY,
  others: readonly Box[],
  bed: { width: number; depth: number },
  reach: number,
  grid: number,
): XY {
  const along = (axis: 0 | 1, by: number) => {
    const own = [box[axis] + by, (box[axis] + box[axis + 2]!) / 2 + by, box[axis + 2]! + by]
    const middle = (axis === 0 ? bed.width : bed.depth) / 2
    const edges = others.flatMap((other) => [other[axis], other[axis + 2]!])
    const middles = [middle, ...others.map((other) => (other[axis] + other[axis + 2]!) / 2)]
    const gaps = [...edges.flatMap((line) => [line - own[0]!, line - own[2]!]), ...middles.map((line) => line - own[1]!)]
    const nearest = gaps.reduce((best, gap) => (Math.abs(gap) < Math.abs(best) ? gap : best), Infinity)
    const to = Math.abs(nearest) <= reach ? by + nearest : Math.round(by / grid) * grid
    return Math.round(to * 1e6) / 1e6
  }
  return [along(0, dx), along(1, dy)]
}

/** How far a box lies from what is nearest to its left, right, front and back: another box beside it, or the bed's edge. */
export interface Gaps {
  left: Gap
  right: Gap
  front: Gap
  back: Gap
}

export interface Gap {
  /** mm. */
  distance: number
  /** Between which places it lies, along its axis. */
  from: number
  to: number
}

export function gapsOf(box: Box, others: readonly Box[], bed: { width: number; depth: number }): Gaps {
  const beside = (axis: 0 | 1) => {
    const across = axis === 0 ? 1 : 0
    return others.filter((other) => other[across] < box[across + 2]! && other[across + 2]! > box[across])
  }
  const before = (axis: 0 | 1): Gap => {
    const edge = Math.max(
      0,
      ...beside(axis)
        .map((other) => other[axis + 2]!)
        .filter((end) => end <= box[axis] + 1e-6),
    )
    return { distance: box[axis] - edge, from: edge, to: box[axis] }
  }
  const after = (axis: 0 | 1): Gap => {
    const end = axis === 0 ? bed.width : bed.depth
    const starts = beside(axis)
      .map((other) => other[axis])
      .filter((start) => start >= box[axis + 2]! - 1e-6)
    const edge = Math.min(end, ...starts)
    return { distance: edge - box[axis + 2]!, from: box[axis + 2]!, to: edge }
  }
  return { left: before(0), right: after(0), front: before(1), back: after(1) }
}

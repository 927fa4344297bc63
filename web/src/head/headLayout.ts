import type { Card } from '../api/client'
import { border } from '../drawing/Frame'
import { outlineBox } from '../drawing/outline'
import type { View } from '../drawing/view'

/** Where the views of a head stand on its sheet, px. */
export interface HeadLayout {
  front: View
  below: View
  /** Where the front view is cut. */
  frontTop: number
  belowTop: number
  left: number
  right: number
  bottom: number
}

/** Front view over the view from below, to one scale, X projected from one to the other. */
export function headLayout(card: Card, w: number, h: number): HeadLayout {
  const head = card.head ?? {}
  const boxes = (head.bodies ?? []).map((body) => outlineBox(body.outline))
  const offsets = (head.nozzles ?? []).map((nozzle) => nozzle.offset ?? { x: 0, y: 0 })
  const away = (head.carriages?.length ?? 0) === 2 ? (head.leastDistance ?? 0) : 0
  const xs = [
    -25,
    25,
    ...boxes.flatMap((b) => [b.x, b.x + b.width, b.x + away, b.x + b.width + away]),
    ...offsets.map((o) => o.x ?? 0),
    head.probe?.x ?? 0,
  ]
  const acrossBeams = (head.beams ?? [])
    .filter((beam) => beam.along === 'x')
    .flatMap((beam) => [beam.near, beam.far].map((face) => Math.max(-80, Math.min(80, face))))
  const ys = [-20, 20, ...boxes.flatMap((b) => [b.y, b.y + b.depth]), ...offsets.map((o) => o.y ?? 0), head.probe?.y ?? 0, ...acrossBeams]
  const zs = [20, ...(head.bodies ?? []).map((b) => b.underside + 12), ...(head.beams ?? []).map((b) => b.underside + 8)]
  const [minX, maxX, minY, maxY, maxZ] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys), Math.min(90, Math.max(...zs))]
  const [side, top, between] = [104, border + 28, 64]
  const below = 64
  const room = Math.max(60, w - 2 * border - 2 * side)
  const stack = Math.max(80, h - top - between - below - border)
  const scale = Math.min(room / (maxX - minX), stack / (maxZ + maxY - minY), 7)
  const spare = Math.max(0, stack - scale * (maxZ + maxY - minY))
  const x0 = border + side + (room - (maxX - minX) * scale) / 2 - minX * scale
  const floor = top + spare / 3 + maxZ * scale
  const belowTop = floor + between
  return {
    front: { scale, x0, y0: floor },
    below: { scale, x0, y0: belowTop + 26 - minY * scale, fromBelow: true },
    frontTop: top + 4,
    belowTop,
    left: border + 8,
    right: w - border - 8,
    bottom: h - border,
  }
}

import { legendLine } from '../drawing/Aside'
import { border } from '../drawing/Frame'
import { titleBlockHeight } from '../drawing/TitleBlock'
import type { View } from '../drawing/view'

export const side = 226
const gutter = 84

/** A size to draw by while none is given yet, mm. */
export const unknown = 200

/** Where things stand on the engineering sheet. */
export interface SheetLayout {
  plan: View
  front: View
  right: number
  headHeight: number
  a4Top: number
  a4Height: number
  /** Between these two heights the names of the keep-outs stand, px. */
  names: [number, number]
}

/** Where things stand on the sheet: elevation over plan at the left, to one scale; the rest in a column at the right. */
export function sheetLayout(w: number, h: number, width: number, depth: number, height: number): SheetLayout {
  const right = w - border - side
  const left = border + gutter
  const room = Math.max(40, right - 24 - left)
  const [above, between, below] = [30, 40, 64]
  const stack = Math.max(60, h - 2 * border - above - between - below)
  const scale = Math.min(room / width, stack / (height + depth))
  const x0 = left + (room - width * scale) / 2
  const spare = Math.max(0, stack - (height + depth) * scale)
  const floor = border + above + spare / 2 + height * scale
  const headHeight = Math.min(110, h * 0.14)
  const a4Top = border + 30 + headHeight + 34
  const a4Height = Math.max(60, Math.min(150, h - a4Top - 340))
  return {
    front: { scale, x0, y0: floor },
    plan: { scale, x0, y0: floor + between + depth * scale },
    right,
    headHeight,
    a4Top,
    a4Height,
    names: [a4Top + a4Height + 28 + 4 * legendLine, h - border - titleBlockHeight - 12],
  }
}

import type { TrialPart } from '../api/client'

/** A part as it was when something was asked about it, and where it stood in the list. */
export interface Held {
  part: TrialPart
  index: number
}

/** Whether a part is the one that was asked about: by its id once it has one. */
export const isHeld =
  ({ part: held, index }: Held) =>
  (part: TrialPart, i: number) =>
    held.id === undefined ? i === index : part.id === held.id

/** A part with the stance that was worked out for it, moved on by as much as that moves it. */
export function tiltedAs(part: TrialPart, asked: readonly Held[], made: readonly TrialPart[], index: number): TrialPart {
  const k = asked.findIndex((held) => isHeld(held)(part, index))
  const [was, is] = [asked[k]?.part, made[k]]
  if (!was || !is) return part
  const on = (axis: 'x' | 'y' | 'lift') => Math.round(((part[axis] ?? 0) + (is[axis] ?? 0) - (was[axis] ?? 0)) * 1e4) / 1e4
  return { ...part, x: on('x'), y: on('y'), lift: on('lift'), turn: is.turn, tilt: is.tilt }
}

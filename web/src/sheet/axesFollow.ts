import type { Card } from '../api/client'
import { withValue, under } from '../open-document/pointer'
import { bedSize } from '../drawing/outline'

/** An axis that covered the bed exactly, and would be another one to cover it as it is now. */
export interface Following {
  axis: 'X' | 'Y' | 'Z'
  /** As it runs now, mm. */
  runs: [number | undefined, number]
  /** As it would run, mm. */
  would: [number | undefined, number]
}

const near = (a: number, b: number) => Math.abs(a - b) < 1e-6

/** From where to where the axes would have to run to cover the bed and its height exactly. */
function covering(card: Card): Record<'x' | 'y' | 'z', [number | undefined, number] | undefined> {
  const { width, depth } = bedSize(card.envelope?.bed)
  const origin = card.envelope?.origin
  const along = (size: number | undefined, zero: number | undefined): [number, number] | undefined =>
    size === undefined || zero === undefined ? undefined : [0 - zero, size - zero]
  const height = card.envelope?.height
  return { x: along(width, origin?.x), y: along(depth, origin?.y), z: height == null ? undefined : [undefined, height] }
}

/** Axes that fitted the bed of a card as it was, have not been touched since, and no longer fit it. */
export function following(before: Card, now: Card): Following[] {
  const [fitted, fits] = [covering(before), covering(now)]
  return (['x', 'y', 'z'] as const).flatMap((name) => {
    const [was, is] = [before.motion?.axes?.[name], now.motion?.axes?.[name]]
    const [old, next] = [fitted[name], fits[name]]
    if (!old || !next || was?.max == null || was.min !== is?.min || was.max !== is?.max) return []
    if (!near(was.max, old[1]) || (old[0] !== undefined && !near(was.min ?? 0, old[0]))) return []
    if (near(old[1], next[1]) && near(old[0] ?? 0, next[0] ?? 0)) return []
    return [
      { axis: name.toUpperCase() as Following['axis'], runs: [old[0] === undefined ? undefined : (was.min ?? 0), was.max], would: next },
    ]
  })
}

/** The card with its axes as they would run. */
export function followed(card: Card, axes: Following[]): Card {
  return axes.reduce((so, { axis, would: [min, max] }) => {
    const at = under('/motion/axes', axis.toLowerCase())
    const upper = withValue(so, under(at, 'max'), max)
    return min === undefined ? upper : withValue(upper, under(at, 'min'), min)
  }, card)
}

/** A print along time: what comes before and after the layers has room to be read, however short it is, and leaves them room, however
 * long. */
export interface TimeAxis {
  /** Where a moment lies, px. */
  x: (seconds: number) => number
  /** Which moment lies there. */
  at: (x: number) => number
  /** Ends of the three pieces, px: where the start begins, the layers, the end, and where that ends. */
  ends: [number, number, number, number]
}

/**
 * The axis of a print.
 * @param begin When the layers begin, s.
 * @param end When they end, s.
 * @param total When all ends, s.
 * @param width Of the whole, px.
 * @param least Of the pieces before and after, px.
 */
export function timeAxis(begin: number, end: number, total: number, width: number, least: number): TimeAxis {
  const share = (seconds: number) => (total > 0 ? (seconds / total) * width : 0)
  const room = Math.min(least, width / 4)
  // the layers keep a third
  const taken = (seconds: number) => Math.min(width / 3, Math.max(room, share(seconds)))
  const [first, last] = [taken(begin), taken(total - end)]
  const marks = [0, begin, end, total]
  const ends: TimeAxis['ends'] = [0, first, width - last, width]
  const between = (value: number, from: readonly number[], to: readonly number[]) => {
    const piece = from.slice(1, 3).filter((mark) => value >= mark).length
    const [a, b] = [from[piece]!, from[piece + 1]!]
    const part = b > a ? Math.min(1, Math.max(0, (value - a) / (b - a))) : 0
    return to[piece]! + part * (to[piece + 1]! - to[piece]!)
  }
  return { x: (seconds) => between(seconds, marks, ends), at: (x) => between(x, ends, marks), ends }
}

/** The last of the layers that has begun at a moment; −1 before the first. */
export function layerAt(starts: readonly number[], seconds: number): number {
  let [low, high] = [-1, starts.length - 1]
  while (low < high) {
    const middle = Math.floor((low + high + 1) / 2)
    if (starts[middle]! <= seconds) low = middle
    else high = middle - 1
  }
  return low
}

import type { XYZ } from './look'

/** Stretches of thin lines, gathered as pairs of points. */
export class Segments {
  private readonly all: number[] = []

  line(from: XYZ, to: XYZ) {
    this.all.push(...from, ...to)
    return this
  }

  /** A closed ring at a height. */
  ring(corners: readonly (readonly [number, number])[], z: number) {
    corners.forEach(([x, y], i) => {
      const [toX, toY] = corners[(i + 1) % corners.length]!
      this.line([x, y, z], [toX, toY, z])
    })
    return this
  }

  /** The edges of what stands upright over a ring; those of a round one only at its quarters. */
  prism(corners: readonly (readonly [number, number])[], from: number, to: number) {
    this.ring(corners, from).ring(corners, to)
    const every = corners.length > 12 ? Math.ceil(corners.length / 4) : 1
    for (let i = 0; i < corners.length; i += every) this.line([...corners[i]!, from], [...corners[i]!, to])
    return this
  }

  /** A line of dashes. */
  dashed([ax, ay, az]: XYZ, [bx, by, bz]: XYZ, dash: number) {
    const length = Math.hypot(bx - ax, by - ay, bz - az)
    for (let at = 0; at < length; at += 2 * dash) {
      const [s, t] = [at / length, Math.min(1, (at + dash) / length)]
      this.line([ax + s * (bx - ax), ay + s * (by - ay), az + s * (bz - az)], [ax + t * (bx - ax), ay + t * (by - ay), az + t * (bz - az)])
    }
    return this
  }

  points = () => new Float32Array(this.all)
}

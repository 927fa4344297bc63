/** A point in space, mm, bed frame. */
export type XYZ = readonly [number, number, number]

/** From where a pictorial view is seen: a parallel projection, as ISO 5456-3 has it. */
export interface Look {
  /** Turn about Z, degrees: 0 from the front, 90 from the right. */
  azimuth: number
  /** Above the horizon, degrees: 90 from above. */
  elevation: number
  /** Pixels per mm. */
  scale: number
  /** What stands in the middle of the view. */
  target: XYZ
}

/** Isometric: all three axes foreshortened alike. */
export const isometric = { azimuth: 45, elevation: (Math.atan(Math.SQRT1_2) * 180) / Math.PI }

/** The view's own directions in space: to the right, upwards, towards who looks. */
export function directionsOf({ azimuth, elevation }: Pick<Look, 'azimuth' | 'elevation'>): { right: XYZ; up: XYZ; toward: XYZ } {
  const [a, e] = [(azimuth * Math.PI) / 180, (elevation * Math.PI) / 180]
  const [sinA, cosA, sinE, cosE] = [Math.sin(a), Math.cos(a), Math.sin(e), Math.cos(e)]
  return { right: [cosA, sinA, 0], up: [-sinA * sinE, cosA * sinE, cosE], toward: [sinA * cosE, -cosA * cosE, sinE] }
}

export const dot = (a: XYZ, b: XYZ) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]

/** Where a point comes to lie on a picture of a size, px, y downwards. */
export function pictured(look: Look, point: XYZ, width: number, height: number): [number, number] {
  const { right, up } = directionsOf(look)
  const from: XYZ = [point[0] - look.target[0], point[1] - look.target[1], point[2] - look.target[2]]
  return [width / 2 + look.scale * dot(right, from), height / 2 - look.scale * dot(up, from)]
}

/** The look from a direction that shows a box as large as a picture allows. */
export function fitted(
  from: Pick<Look, 'azimuth' | 'elevation'>,
  size: XYZ,
  { width, height }: { width: number; height: number },
  margin = 18,
): Look {
  const { right, up } = directionsOf(from)
  const span = (axis: XYZ) => size.reduce((sum, side, i) => sum + side * Math.abs(axis[i]!), 0)
  const room = (px: number) => Math.max(20, px - 2 * margin)
  return {
    ...from,
    scale: Math.min(room(width) / Math.max(1e-6, span(right)), room(height) / Math.max(1e-6, span(up))),
    target: [size[0] / 2, size[1] / 2, size[2] / 2],
  }
}

/** The look turned; it never goes over the top nor below the bed far enough to hide what stands on it. */
export const turned = (look: Look, azimuth: number, elevation: number): Look => ({
  ...look,
  azimuth: (((look.azimuth + azimuth) % 360) + 360) % 360,
  elevation: Math.min(90, Math.max(-60, look.elevation + elevation)),
})

/** The look moved by pixels of the picture. */
export function shifted(look: Look, dx: number, dy: number): Look {
  const { right, up } = directionsOf(look)
  const [x, y, z] = look.target.map((at, i) => at - (right[i]! * dx - up[i]! * dy) / look.scale)
  return { ...look, target: [x!, y!, z!] }
}

/**
 * How far a point on a plane goes, mm along each of its two directions, that is dragged by pixels of the picture; nothing where the plane
 * is seen edge on.
 */
export function onPlane(look: Look, along: XYZ, across: XYZ, dx: number, dy: number): [number, number] | undefined {
  const { right, up } = directionsOf(look)
  const [a, b, c, d] = [dot(right, along), dot(right, across), dot(up, along), dot(up, across)]
  const turn = a * d - b * c
  if (Math.abs(turn) < 0.05) return undefined
  const [x, y] = [dx / look.scale, -dy / look.scale]
  return [(d * x - b * y) / turn, (a * y - c * x) / turn]
}

/** The same on the level plane, along X and Y. */
export const onLevel = (look: Look, dx: number, dy: number): [number, number] => onPlane(look, [1, 0, 0], [0, 1, 0], dx, dy) ?? [0, 0]

/** How far a point goes up, mm, that is dragged upright by pixels of the picture; nothing where it is seen from above. */
export function upright(look: Look, dy: number): number {
  const rise = directionsOf(look).up[2]
  return rise < 0.05 ? 0 : -dy / (look.scale * rise)
}

/** The look nearer by a factor, what lies at a place of the picture kept there. */
export function nearer(look: Look, by: number, at: readonly [number, number], width: number, height: number): Look {
  const scale = Math.min(400, Math.max(0.05, look.scale * by))
  const ratio = scale / look.scale
  const [dx, dy] = [at[0] - width / 2, at[1] - height / 2]
  return { ...shifted({ ...look, scale }, dx * (1 - ratio), dy * (1 - ratio)) }
}

import type { Layer, LayerPath } from './layers'

/** What lines can be drawn by, beside their kind. */
export const measures = {
  speed: { label: 'speed', unit: 'mm/s', digits: 0, of: (path: LayerPath) => path.speed },
  flow: { label: 'flow', unit: 'mm³/s', digits: 1, of: (path: LayerPath) => path.flow },
  'time of layer': { label: 'time of layer', unit: 's', digits: 1, of: (_: LayerPath, layer: Layer) => layer.seconds },
  height: { label: 'height of line', unit: 'mm', digits: 3, of: (_: LayerPath, layer: Layer) => layer.height },
  width: { label: 'width of line', unit: 'mm', digits: 2, of: (path: LayerPath) => path.width },
  temperature: { label: 'temperature', unit: '°C', digits: 0, of: (path: LayerPath) => path.temperature },
  fan: { label: 'fan', unit: '%', digits: 0, of: (path: LayerPath) => 100 * path.fan },
  acceleration: { label: 'acceleration', unit: 'mm/s²', digits: 0, of: (path: LayerPath) => path.acceleration },
  nozzle: { label: 'nozzle', unit: '', digits: 0, of: (path: LayerPath) => path.nozzle + 1 },
} as const

export type Measure = keyof typeof measures

/** What can be marked beside the lines. */
export const markKinds = ['travels', 'seams', 'retractions', 'crossings'] as const
export type MarkKind = (typeof markKinds)[number]

/** How lines are drawn, on the plan and in space alike. */
export interface Drawing {
  by: Measure | 'kind'
  /** Lines with values outside it are brought out; undefined for none. */
  within: readonly [number, number] | undefined
  marks: readonly MarkKind[]
}

export const drawnByKind: Drawing = { by: 'kind', within: undefined, marks: [] }

/** Least and greatest value over all lines; undefined where there is none. */
export function spanOf(layers: readonly Layer[], by: Measure): readonly [number, number] | undefined {
  const { of } = measures[by]
  let [least, most] = [Infinity, -Infinity]
  for (const layer of layers)
    for (const path of layer.paths) {
      const value = of(path, layer)
      if (value < least) least = value
      if (value > most) most = value
    }
  return least <= most ? [least, most] : undefined
}

/** Half of the last digit that is shown: what is chosen by digits holds what is shown by them. */
export const slackOf = (by: Measure) => 0.5 * 10 ** -measures[by].digits

/** Where a value lies in a span, 0 to 1; undefined outside the range that is looked at. */
export function shareOf(value: number, span: readonly [number, number], within: readonly [number, number] | undefined, slack: number) {
  if (within && (value < within[0] - slack || value > within[1] + slack)) return undefined
  return span[1] - span[0] < 1e-9 ? 0.5 : (value - span[0]) / (span[1] - span[0])
}

/** How many lines lie outside a range. */
export function countOutside(layers: readonly Layer[], by: Measure, within: readonly [number, number]): number {
  const { of } = measures[by]
  const slack = slackOf(by)
  const outside = (value: number) => value < within[0] - slack || value > within[1] + slack
  return layers.reduce((sum, layer) => sum + layer.paths.filter((path) => outside(of(path, layer))).length, 0)
}

/** Where travels that pull nothing back run over an outer wall: x, y, x, y of each stretch, mm. */
export function crossingsOf(layer: Layer): number[][] {
  const walls = layer.paths.filter((path) => path.kind === 'outer wall').map((path) => ({ path, box: boxOf(path.points) }))
  const found: number[][] = []
  for (const { way, pulledBack } of layer.paths) {
    if (pulledBack) continue
    for (let i = 0; i + 3 < way.length; i += 2) {
      const stretch = [way[i]!, way[i + 1]!, way[i + 2]!, way[i + 3]!]
      const [minX, maxX] = [Math.min(stretch[0]!, stretch[2]!), Math.max(stretch[0]!, stretch[2]!)]
      const [minY, maxY] = [Math.min(stretch[1]!, stretch[3]!), Math.max(stretch[1]!, stretch[3]!)]
      const near = walls.filter(({ box }) => box[0] <= maxX && box[2] >= minX && box[1] <= maxY && box[3] >= minY)
      if (near.some(({ path }) => crosses(stretch, path))) found.push(stretch)
    }
  }
  return found
}

function boxOf(points: Float32Array): [number, number, number, number] {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity]
  for (let i = 0; i < points.length; i += 2) {
    minX = Math.min(minX, points[i]!)
    maxX = Math.max(maxX, points[i]!)
    minY = Math.min(minY, points[i + 1]!)
    maxY = Math.max(maxY, points[i + 1]!)
  }
  return [minX, minY, maxX, maxY]
}

function crosses([ax, ay, bx, by]: number[], { points, closed }: LayerPath): boolean {
  const side = (px: number, py: number, qx: number, qy: number, x: number, y: number) => (qx - px) * (y - py) - (qy - py) * (x - px)
  const count = points.length / 2
  for (let i = 0; i < (closed ? count : count - 1); i++) {
    const k = (i + 1) % count
    const [cx, cy, dx, dy] = [points[2 * i]!, points[2 * i + 1]!, points[2 * k]!, points[2 * k + 1]!]
    const apart = side(ax!, ay!, bx!, by!, cx, cy) * side(ax!, ay!, bx!, by!, dx, dy)
    const across = side(cx, cy, dx, dy, ax!, ay!) * side(cx, cy, dx, dy, bx!, by!)
    if (apart < 0 && across < 0) return true
  }
  return false
}

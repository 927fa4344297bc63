/** A line of plastic on a layer. */
export interface LayerPath {
  kind: PathKind
  closed: boolean
  /** Index of the nozzle that lays it. */
  nozzle: number
  width: number
  /** What the dry run says of it: mean speed mm/s, mean flow mm³/s, °C, share of the fan, mm/s². */
  speed: number
  flow: number
  temperature: number
  fan: number
  acceleration: number
  /** Whether filament was pulled back on the way to it. */
  pulledBack: boolean
  /** Program lines with which it begins and ends, counted from 1. */
  first: number
  last: number
  /** x, y, x, y, …, mm, bed frame: the way to it from where the line before it ended. */
  way: Float32Array
  /** x, y, x, y, …, mm, bed frame. */
  points: Float32Array
}

export interface Layer {
  top: number
  height: number
  /** How long it takes. */
  seconds: number
  paths: LayerPath[]
}

/** In the order of their bytes; a test holds the list against the server's. */
export const pathKinds = [
  'skirt',
  'outer wall',
  'inner wall',
  'solid fill',
  'infill',
  'top',
  'bridge',
  'thin line',
  'second pass',
  'support',
  'interface',
  'brim',
  'raft',
  'tower',
  'shield',
] as const
export type PathKind = (typeof pathKinds)[number]

/**
 * Reads the binary of layers. Little-endian: "MCL3", int32 layers; per layer float32 top, float32 height, float32 seconds, int32 paths;
 * per path uint8 kind, closed, nozzle, pulled back, float32 width, speed, flow, temperature, fan, acceleration, int32 first and last
 * program line, then twice, for the way to it and for the line, int32 points and float32 x, y each. Layers that an older version
 * computed come as nothing.
 */
export function readLayers(file: ArrayBuffer): Layer[] {
  if (file.byteLength === 0) return []
  const view = new DataView(file)
  if (view.getUint32(0, false) !== 0x4d434c33) throw new Error('These are not layers that this page can read.')
  let at = 4
  const int = () => view.getInt32((at += 4) - 4, true)
  const float = () => view.getFloat32((at += 4) - 4, true)
  const points = () => {
    const count = int()
    at += 8 * count
    return new Float32Array(file, at - 8 * count, 2 * count)
  }
  return Array.from({ length: int() }, () => {
    const [top, height, seconds] = [float(), float(), float()]
    const paths = Array.from({ length: int() }, () => {
      const kind = pathKinds[view.getUint8(at)]
      if (!kind) throw new Error('There are lines of a kind that this page does not know. Load it anew.')
      const [closed, nozzle, pulledBack] = [view.getUint8(at + 1) === 1, view.getUint8(at + 2), view.getUint8(at + 3) === 1]
      at += 4
      const [width, speed, flow, temperature, fan, acceleration] = [float(), float(), float(), float(), float(), float()]
      const figures = { width, speed, flow, temperature, fan, acceleration }
      return { kind, closed, nozzle, pulledBack, ...figures, first: int(), last: int(), way: points(), points: points() }
    })
    return { top, height, seconds, paths }
  })
}

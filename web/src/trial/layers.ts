/** A line of plastic on a layer. */
export interface LayerPath {
  kind: PathKind
  closed: boolean
  width: number
  /** x, y, x, y, …, mm, bed frame. */
  points: Float32Array
}

export interface Layer {
  top: number
  height: number
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
 * Reads the binary of layers. Little-endian: "MCL1", int32 layers; per layer float32 top, float32 height, int32 paths;
 * per path uint8 kind, uint8 closed, uint16 0, float32 width, int32 points, then float32 x, y each.
 */
export function readLayers(file: ArrayBuffer): Layer[] {
  const view = new DataView(file)
  if (view.getUint32(0, false) !== 0x4d434c31) throw new Error('These are not layers that this page can read.')
  let at = 4
  const int = () => view.getInt32((at += 4) - 4, true)
  const float = () => view.getFloat32((at += 4) - 4, true)
  return Array.from({ length: int() }, () => {
    const top = float()
    const height = float()
    const paths = Array.from({ length: int() }, () => {
      const kind = pathKinds[view.getUint8(at)]
      if (!kind) throw new Error('There are lines of a kind that this page does not know. Load it anew.')
      const closed = view.getUint8(at + 1) === 1
      at += 4
      const width = float()
      const count = int()
      const points = new Float32Array(file, at, 2 * count)
      at += 8 * count
      return { kind, closed, width, points }
    })
    return { top, height, paths }
  })
}

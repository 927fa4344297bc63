/** A mesh as the server sends it for drawing. */
export interface Solid {
  /** x, y, z a corner, mm, as the file has them. */
  corners: Float32Array
  /** Three corners a face. */
  faces: Int32Array
  /** Two corners and the faces on either side, −1 for none. */
  edges: Int32Array
  /** How many faces the file has; more than stand here where the mesh was cut down. */
  facesOfFile: number
  /** The file's number of each face; undefined where they are the same. */
  numbers: Int32Array | undefined
}

/**
 * Reads the binary of a mesh. Little-endian: "MCS1", int32 corners, faces, edges, faces of the file; then float32 x, y, z a corner; int32
 * × 3 a face; int32 × 4 an edge; and an int32 a face where the mesh was cut down.
 */
export function readSolid(file: ArrayBuffer): Solid {
  const view = new DataView(file)
  if (view.getUint32(0, false) !== 0x4d435331) throw new Error('This is not a part that this page can draw.')
  const [corners, faces, edges, facesOfFile] = [4, 8, 12, 16].map((at) => view.getInt32(at, true)) as [number, number, number, number]
  const [afterCorners, afterFaces] = [20 + 12 * corners, 20 + 12 * corners + 12 * faces]
  const end = afterFaces + 16 * edges
  return {
    corners: new Float32Array(file, 20, 3 * corners),
    faces: new Int32Array(file, afterCorners, 3 * faces),
    edges: new Int32Array(file, afterFaces, 4 * edges),
    facesOfFile,
    numbers: file.byteLength > end ? new Int32Array(file, end, faces) : undefined,
  }
}

/** How a part stands, but for its turn and its place. */
export interface Stance {
  scale: { x: number; y: number; z: number; mirrored: boolean }
  /** Degrees about X and then about Y. */
  tilt: { x: number; y: number }
}

/** Sine and cosine, exact at quarter turns, as the server has them. */
function sinCos(degrees: number): [number, number] {
  const quarter = (((degrees % 360) + 360) % 360) / 90
  const exact = [
    [0, 1],
    [1, 0],
    [0, -1],
    [-1, 0],
  ][quarter]
  const angle = (degrees * Math.PI) / 180
  return (exact as [number, number] | undefined) ?? [Math.sin(angle), Math.cos(angle)]
}

/** Corners scaled along the file's own axes, then tilted about X, then about Y. */
export function stood(corners: Float32Array, { scale, tilt }: Stance): Float32Array {
  const [[sinX, cosX], [sinY, cosY]] = [sinCos(tilt.x), sinCos(tilt.y)]
  const to = new Float32Array(corners.length)
  const alongX = scale.mirrored ? -scale.x : scale.x
  for (let i = 0; i < corners.length; i += 3) {
    const [x, y, z] = [alongX * corners[i]!, scale.y * corners[i + 1]!, scale.z * corners[i + 2]!]
    const [y1, z1] = [cosX * y - sinX * z, sinX * y + cosX * z]
    to[i] = cosY * x + sinY * z1
    to[i + 1] = y1
    to[i + 2] = cosY * z1 - sinY * x
  }
  return to
}

/** A turn about Z with the displacement that brings the turned box's middle to x, y and its lowest point to z. */
export function placing(
  corners: Float32Array,
  { x, y, z, turn }: { x: number; y: number; z: number; turn: number },
): { sin: number; cos: number; dx: number; dy: number; dz: number } {
  const [sin, cos] = sinCos(turn)
  let [minX, minY, minZ, maxX, maxY] = [Infinity, Infinity, Infinity, -Infinity, -Infinity]
  for (let i = 0; i < corners.length; i += 3) {
    const [px, py] = [cos * corners[i]! - sin * corners[i + 1]!, sin * corners[i]! + cos * corners[i + 1]!]
    if (px < minX) minX = px
    if (px > maxX) maxX = px
    if (py < minY) minY = py
    if (py > maxY) maxY = py
    if (corners[i + 2]! < minZ) minZ = corners[i + 2]!
  }
  return { sin, cos, dx: x - (minX + maxX) / 2, dy: y - (minY + maxY) / 2, dz: z - minZ }
}

/** Edges with the normals of the faces on both sides, as a pipeline wants them: two ends an edge. */
export function edgesOf(corners: Float32Array, faces: Int32Array, edges: Int32Array) {
  const normals = normalsOf(corners, faces)
  const count = edges.length / 4
  const [ends, left, right] = [new Float32Array(6 * count), new Float32Array(6 * count), new Float32Array(6 * count)]
  for (let e = 0; e < count; e++) {
    const [f, g] = [edges[4 * e + 2]!, edges[4 * e + 3]!]
    for (let k = 0; k < 6; k++) {
      const axis = k % 3
      ends[6 * e + k] = corners[3 * edges[4 * e + (k < 3 ? 0 : 1)]! + axis]!
      left[6 * e + k] = normals[3 * f + axis]!
      // where there is no other side, the edge is seen from everywhere, as a crease is
      right[6 * e + k] = g < 0 ? -normals[3 * f + axis]! : normals[3 * g + axis]!
    }
  }
  return { ends, left, right }
}

function normalsOf(corners: Float32Array, faces: Int32Array): Float32Array {
  const normals = new Float32Array(faces.length)
  for (let f = 0; f < faces.length; f += 3) {
    const [a, b, c] = [3 * faces[f]!, 3 * faces[f + 1]!, 3 * faces[f + 2]!]
    const [ux, uy, uz] = [corners[b]! - corners[a]!, corners[b + 1]! - corners[a + 1]!, corners[b + 2]! - corners[a + 2]!]
    const [vx, vy, vz] = [corners[c]! - corners[a]!, corners[c + 1]! - corners[a + 1]!, corners[c + 2]! - corners[a + 2]!]
    const [x, y, z] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx]
    const length = Math.hypot(x, y, z) || 1
    normals[f] = x / length
    normals[f + 1] = y / length
    normals[f + 2] = z / length
  }
  return normals
}

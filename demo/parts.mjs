// Makes the demo parts of the field station: node demo/parts.mjs
// Constructive solids through manifold-3d (a general-purpose geometry library), written as binary STL.
import { mkdirSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import initialise from 'manifold-3d'

const kernel = await initialise()
kernel.setup()
const { Manifold, CrossSection } = kernel

const box = (w, d, h, x = 0, y = 0, z = 0) => Manifold.cube([w, d, h]).translate([x, y, z])
const rod = (r, h, x = 0, y = 0, z = 0, n = 96) => Manifold.cylinder(h, r, r, n).translate([x, y, z])
const lying = (r, l, n = 96) => Manifold.cylinder(l, r, r, n, true).rotate([90, 0, 0])

const parts = {
  /** Half a clamp round the rod of a tide gauge's float: a saddle with two ears. */
  'tide-gauge-float-clamp': () =>
    box(44, 31, 18, -22, -15.5)
      .add(box(64, 31, 6, -32, -15.5))
      .subtract(lying(12, 40).translate([0, 0, 20]))
      .subtract(rod(2.7, 10, -27, 0, -1, 48))
      .subtract(rod(2.7, 10, 27, 0, -1, 48)),
  /** Corner of a sampling frame: two sockets for tubes at a right angle. */
  'quadrat-corner': () =>
    box(50, 18, 18)
      .add(box(18, 50, 18))
      .subtract(Manifold.cylinder(40, 6, 6, 72).rotate([0, 90, 0]).translate([12, 9, 9]))
      .subtract(Manifold.cylinder(40, 6, 6, 72).rotate([-90, 0, 0]).translate([9, 12, 9])),
  /** Rack for sample tubes: two rows of holes over a floor with drains. */
  'sample-tube-rack': () => {
    let rack = box(96, 44, 32).subtract(box(88, 36, 10, 4, 4, 14))
    for (let row = 0; row < 2; row++)
      for (let column = 0; column < 4; column++)
        rack = rack
          .subtract(rod(8.2, 40, 14 + 22.7 * column, 12 + 20 * row, 3))
          .subtract(rod(2, 10, 14 + 22.7 * column, 12 + 20 * row, -2, 32))
    return rack
  },
  /** Joint that holds the two ends of a net's ring. */
  'net-ring-joint': () =>
    Manifold.revolve(CrossSection.circle(9, 48).translate([40, 0]), 192, 70)
      .rotate([0, 0, -35])
      .translate([-40, 0, 9])
      .subtract(Manifold.revolve(CrossSection.circle(4.2, 48).translate([40, 0]), 192, 360).translate([-40, 0, 9]))
      .trimByPlane([0, 0, 1], 1.2),
  /** Tag that names a station, with a hole to hang it by. */
  'station-tag': () => box(46, 22, 2.4, -23, -11).subtract(rod(2.2, 10, -18.5, 0, -1, 48)),
  /** Its raised mark, of another colour: H 2. */
  'station-tag-mark': () =>
    box(3, 14, 1.2, -12, -7)
      .add(box(3, 14, 1.2, -2, -7))
      .add(box(12, 3, 1.2, -11.5, -1.5))
      .add(box(12, 3, 1.2, 6, 4))
      .add(box(3, 7, 1.2, 15, 0))
      .add(box(12, 3, 1.2, 6, -1.5))
      .add(box(3, 7, 1.2, 6, -7))
      .add(box(12, 3, 1.2, 6, -7)),
  /** Gland that seals a cable where it goes through the housing's wall. */
  'cable-gland': () =>
    Manifold.cylinder(9, 15, 15, 6)
      .add(Manifold.cylinder(12, 9.5, 9.5, 96).translate([0, 0, 9]))
      .add(Manifold.cylinder(8, 9.5, 6.5, 96).translate([0, 0, 21]))
      .subtract(rod(4, 40, 0, 0, -1)),
}

/** Binary STL of a solid, its lowest point at z = 0. */
function stl(solid) {
  const { vertProperties: at, triVerts: faces, numProp } = solid.getMesh()
  const file = Buffer.alloc(84 + (faces.length / 3) * 50)
  file.writeUInt32LE(faces.length / 3, 80)
  for (let f = 0; f < faces.length; f += 3)
    for (let k = 0; k < 3; k++)
      for (let c = 0; c < 3; c++) file.writeFloatLE(at[faces[f + k] * numProp + c], 84 + (f / 3) * 50 + 12 + 12 * k + 4 * c)
  return file
}

const folder = process.argv[2] ?? join(dirname(fileURLToPath(import.meta.url)), 'parts')
mkdirSync(folder, { recursive: true })
for (const [name, make] of Object.entries(parts)) {
  const solid = make()
  writeFileSync(join(folder, `${name}.stl`), stl(solid))
  console.log(`${name}: ${solid.numTri()} faces, ${(solid.volume() / 1000).toFixed(2)} cm³`)
}

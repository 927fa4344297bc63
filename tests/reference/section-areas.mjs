// Areas of cross-sections by manifold-3d: node section-areas.mjs FILE.stl z z z …  →  [area, area, …]
import { readFileSync } from 'node:fs'
import initialise from 'manifold-3d'

const [file, ...heights] = process.argv.slice(2)
const kernel = await initialise()
kernel.setup()

const bytes = readFileSync(file)
const faces = bytes.readUInt32LE(80)
const corners = new Float32Array(faces * 9)
for (let f = 0; f < faces; f++) for (let i = 0; i < 9; i++) corners[9 * f + i] = bytes.readFloatLE(84 + 50 * f + 12 + 4 * i)
const mesh = new kernel.Mesh({ numProp: 3, vertProperties: corners, triVerts: Uint32Array.from({ length: faces * 3 }, (_, i) => i) })
mesh.merge()
const solid = new kernel.Manifold(mesh)
console.log(JSON.stringify(heights.map((z) => solid.slice(Number(z)).area())))

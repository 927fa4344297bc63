// Times general-purpose libraries on the files that the benchmarks read: node measure.mjs FOLDER OUT.json
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import initialise from 'manifold-3d'
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js'
import { mergeVertices } from 'three/examples/jsm/utils/BufferGeometryUtils.js'

const [folder, out] = process.argv.slice(2)
const kernel = await initialise()
kernel.setup()
const heights = Array.from({ length: 150 }, (_, i) => 0.1 + 0.2 * i)

/** Median of several runs, ms, after one to warm up. */
function median(run, times) {
  run()
  const taken = Array.from({ length: times }, () => {
    const began = performance.now()
    run()
    return performance.now() - began
  }).sort((a, b) => a - b)
  return taken[taken.length >> 1]
}

const found = {}
for (const faces of [10_000, 100_000, 1_000_000]) {
  const times = faces >= 1_000_000 ? 3 : 7
  const file = readFileSync(join(folder, `torus-${faces}.stl`))
  const bytes = file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength)
  const loader = new STLLoader()
  found[`StlRead.bare ${faces}`] = median(() => loader.parse(bytes), times)
  found[`StlRead.Welded ${faces}`] = median(() => {
    const geometry = loader.parse(bytes)
    // the loader's normals and groups keep corners apart; only places are welded, as the other side does
    geometry.deleteAttribute('normal')
    mergeVertices(geometry, 1e-9)
  }, times)

  const positions = loader.parse(bytes).getAttribute('position').array
  const mesh = new kernel.Mesh({
    numProp: 3,
    vertProperties: positions,
    triVerts: Uint32Array.from({ length: positions.length / 3 }, (_, i) => i),
  })
  mesh.merge()
  const solid = new kernel.Manifold(mesh)
  found[`Sections.OneThread ${faces}`] = median(() => {
    for (const height of heights) {
      const section = solid.slice(height)
      section.toPolygons()
      section.delete()
    }
  }, times)
  solid.delete()
}
writeFileSync(out, JSON.stringify(found, null, 2))

// Volume of all that stands on a 3MF's plate, by three.js' loader: node volume-of-3mf.mjs FILE.3mf  →  mm³
import { readFileSync } from 'node:fs'
import { DOMParser } from 'linkedom'
import { ThreeMFLoader } from 'three/examples/jsm/loaders/3MFLoader.js'

globalThis.DOMParser = DOMParser
const bytes = readFileSync(process.argv[2])
const group = new ThreeMFLoader().parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength))
group.updateMatrixWorld(true)
let six = 0
group.traverse((node) => {
  if (!node.isMesh) return
  const geometry = (node.geometry.index ? node.geometry.toNonIndexed() : node.geometry).clone().applyMatrix4(node.matrixWorld)
  const p = geometry.getAttribute('position').array
  for (let i = 0; i < p.length; i += 9)
    six +=
      p[i] * (p[i + 4] * p[i + 8] - p[i + 5] * p[i + 7]) -
      p[i + 1] * (p[i + 3] * p[i + 8] - p[i + 5] * p[i + 6]) +
      p[i + 2] * (p[i + 3] * p[i + 7] - p[i + 4] * p[i + 6])
})
console.log(six / 6)

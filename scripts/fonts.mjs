// Unpacks the faces that printed sheets are set in from the packages of the pages: a WOFF is a TrueType font with packed
// tables (W3C WOFF 1.0).
import { readFileSync, writeFileSync } from 'node:fs'
import { inflateSync } from 'node:zlib'

const from = 'node_modules/@fontsource'
const to = 'src/MillCard.Web/Paper/Faces'
const faces = {
  'text-latin': 'ibm-plex-sans/files/ibm-plex-sans-latin-400-normal',
  'text-latin-ext': 'ibm-plex-sans/files/ibm-plex-sans-latin-ext-400-normal',
  'text-greek': 'ibm-plex-sans/files/ibm-plex-sans-greek-400-normal',
  'text-cyrillic': 'ibm-plex-sans/files/ibm-plex-sans-cyrillic-400-normal',
  'strong-latin': 'ibm-plex-sans/files/ibm-plex-sans-latin-600-normal',
  'letters-latin': 'ibm-plex-sans-condensed/files/ibm-plex-sans-condensed-latin-600-normal',
  'code-latin': 'ibm-plex-mono/files/ibm-plex-mono-latin-400-normal',
}

for (const [name, file] of Object.entries(faces)) writeFileSync(`${to}/${name}.ttf`, unpacked(readFileSync(`${from}/${file}.woff`)))

function unpacked(woff) {
  const count = woff.readUInt16BE(12)
  const tables = Array.from({ length: count }, (_, i) => {
    const at = 44 + 20 * i
    const [offset, packed, length] = [4, 8, 12].map((by) => woff.readUInt32BE(at + by))
    const bytes = woff.subarray(offset, offset + packed)
    return { tag: woff.subarray(at, at + 4), sum: woff.readUInt32BE(at + 16), bytes: packed < length ? inflateSync(bytes) : bytes }
  })
  const power = 2 ** Math.floor(Math.log2(count))
  const head = Buffer.alloc(12 + 16 * count)
  head.writeUInt32BE(woff.readUInt32BE(4), 0)
  for (const [i, value] of [count, power * 16, Math.log2(power), (count - power) * 16].entries()) head.writeUInt16BE(value, 4 + 2 * i)
  const parts = [head]
  let at = head.length
  for (const [i, { tag, sum, bytes }] of tables.entries()) {
    tag.copy(head, 12 + 16 * i)
    for (const [j, value] of [sum, at, bytes.length].entries()) head.writeUInt32BE(value, 16 + 16 * i + 4 * j)
    const padded = Buffer.alloc(Math.ceil(bytes.length / 4) * 4)
    bytes.copy(padded)
    parts.push(padded)
    at += padded.length
  }
  return Buffer.concat(parts)
}

// Puts both sides beside each other: node table.mjs REFERENCE.json RESULTS-FOLDER
import { readdirSync, readFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { join } from 'node:path'

const [reference, results] = process.argv.slice(2)
const theirs = JSON.parse(readFileSync(reference, 'utf8'))
const ours = readdirSync(results)
  .filter((name) => name.endsWith('-report-brief.json'))
  .flatMap((name) => JSON.parse(readFileSync(join(results, name), 'utf8')).Benchmarks)
  .map((b) => ({
    name: `${b.Type}.${b.Method}${b.Parameters ? ` ${b.Parameters.replace('Faces=', '')}` : ''}`,
    ms: b.Statistics.Median / 1e6,
  }))

const shown = (ms) => (ms >= 1 ? `${ms.toFixed(1)} ms` : ms >= 0.001 ? `${(1000 * ms).toFixed(1)} µs` : `${(1e6 * ms).toFixed(0)} ns`)
console.log(`${cpus()[0].model}, ${cpus().length} cores, Node ${process.version}\n`)
console.log('| what | here | three.js / manifold-3d | ratio |\n| --- | ---: | ---: | ---: |')
for (const { name, ms } of ours) {
  const other = theirs[name]
  console.log(`| ${name} | ${shown(ms)} | ${other ? shown(other) : ''} | ${other ? `${(other / ms).toFixed(1)} ×` : ''} |`)
  const bare = theirs[name.replace('Welded', 'bare')]
  if (name.includes('Welded'))
    console.log(`| … against their bare read, unwelded | ${shown(ms)} | ${shown(bare)} | ${(bare / ms).toFixed(2)} × |`)
}

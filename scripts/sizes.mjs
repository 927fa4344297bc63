// Holds what the pages load to a budget: gzipped bytes of each chunk's code, by the name before its hash.
import { readdirSync, readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'

/** Most kB, gzipped. `first` is all that the first page loads; others are chunks of their own, loaded when they are wanted. */
const budgets = { RoutineEditor: 150, CardPage: 70, TrialPage: 60, SpaceOfTrial: 270, DryRunPage: 20 }
const first = 200
const other = 30

const folder = new URL('../web/dist/', import.meta.url)
const size = (file) => gzipSync(readFileSync(new URL(file, folder))).length / 1024
const html = readFileSync(new URL('index.html', folder), 'utf8')
const loaded = [...html.matchAll(/(?:src|href)="\/(assets\/[^"]+\.(?:js|css))"/g)].map(([, file]) => file)
const over = []
const hold = (name, kilobytes, most) => {
  console.log(`${name.padEnd(28)} ${kilobytes.toFixed(0).padStart(4)} of ${most} kB`)
  if (kilobytes > most) over.push(name)
}
hold(
  'first page',
  loaded.map(size).reduce((sum, one) => sum + one, 0),
  first,
)
for (const file of readdirSync(new URL('assets/', folder))
  .filter((name) => name.endsWith('.js'))
  .map((name) => `assets/${name}`)) {
  if (loaded.includes(file)) continue
  const name = /assets\/(.+)-[\w-]{8}\.js$/.exec(file)?.[1] ?? file
  hold(name, size(file), budgets[name] ?? other)
}
if (over.length > 0) {
  console.error(`Over budget: ${over.join(', ')}.`)
  process.exit(1)
}

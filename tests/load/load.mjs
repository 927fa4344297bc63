// Many users side by side, as a measurement: node tests/load/load.mjs ADDRESS [editors|slices]
// editors: 50 of them edit 10 cards for a minute; every acknowledged edit must be there afterwards.
// slices: 60 large slices wait; how long do small requests take beside them?
const [, , address = 'http://127.0.0.1:7420', what = 'editors'] = process.argv
const json = async (path, init) => {
  const answer = await fetch(address + path, init)
  return { status: answer.status, body: await answer.json().catch(() => undefined) }
}
const send = (method, path, body, headers = {}) =>
  json(path, { method, headers: { 'content-type': 'application/json', ...headers }, body: JSON.stringify(body) })
const percentile = (values, share) => values.sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))]

await { editors, slices }[what]()

async function editors() {
  const seconds = Number(process.env.SECONDS_OF_LOAD ?? 60)
  const example = (await json('/api/examples/card')).body
  const cards = await Promise.all(Array.from({ length: 10 }, (_, i) => send('POST', '/api/cards', { ...example, name: `load ${i}` })))
  const ids = cards.map(({ body }) => body.id)
  const acknowledged = new Map(ids.map((id) => [id, []]))
  const [times, until] = [[], Date.now() + seconds * 1000]
  let clashes = 0
  await Promise.all(
    Array.from({ length: 50 }, async (_, editor) => {
      const id = ids[editor % ids.length]
      for (let n = 0; Date.now() < until; n++) {
        const { body: now } = await json(`/api/cards/${id}`)
        const member = {
          id: `e${editor}n${n}`,
          name: `of editor ${editor}`,
          kind: 'reserved',
          outline: { shape: 'circle', x: 5, y: 5, radius: 1 },
        }
        const keepOuts = [...now.document.envelope.keepOuts.slice(-400), member]
        const began = performance.now()
        const { status } = await send(
          'PUT',
          `/api/cards/${id}`,
          { ...now.document, envelope: { ...now.document.envelope, keepOuts } },
          { 'if-match': `"${now.version}"` },
        )
        times.push(performance.now() - began)
        if (status === 200) acknowledged.get(id).push(member.id)
        else if (status === 412) clashes++
        else throw new Error(`a save was answered with ${status}`)
      }
    }),
  )
  let lost = 0
  for (const id of ids) {
    const kept = new Set((await json(`/api/cards/${id}`)).body.document.envelope.keepOuts.map((member) => member.id))
    lost += acknowledged
      .get(id)
      .slice(-300)
      .filter((member) => !kept.has(member)).length
  }
  const all = [...acknowledged.values()].flat().length
  console.log(
    `${all} edits acknowledged, ${clashes} refused as clashes, ${lost} lost; a save p50 ` +
      `${percentile(times, 0.5).toFixed(0)} ms, p95 ${percentile(times, 0.95).toFixed(0)} ms`,
  )
  if (lost > 0) process.exit(1)
}

async function slices() {
  const [card, filament, recipe] = await Promise.all(
    ['card', 'filament', 'recipe'].map(async (kind) => (await json(`/api/examples/${kind}`)).body),
  )
  const job = JSON.stringify({ card, filament, recipe, parts: [{ name: 'torus', file: 'torus.stl', x: 80, y: 70 }] })
  const mesh = torus(25, 10, 400, 250)
  const leave = new AbortController()
  const statuses = {}
  const waiting = Array.from({ length: 60 }, () => {
    const form = new FormData()
    form.append('job', job)
    form.append('files', new Blob([mesh]), 'torus.stl')
    return fetch(`${address}/api/slice`, { method: 'POST', body: form, signal: leave.signal }).then(
      (answer) => (statuses[answer.status] = (statuses[answer.status] ?? 0) + 1),
      () => undefined,
    )
  })
  await new Promise((wait) => setTimeout(wait, 4000))
  const small = {
    'list of cards': () => json('/api/cards'),
    'check of a card': () => send('POST', '/api/check', card),
    'dry run of a few lines': () => send('POST', '/api/dry-run', { card, gcode: 'G28\nM109 S200\nG1 X10 Y10 Z0.2 E1 F1200\nM104 S0\n' }),
    'preview of routines': () => send('POST', '/api/routines/preview', { card }),
  }
  const everything = []
  for (const [name, ask] of Object.entries(small)) {
    const times = []
    for (let i = 0; i < 40; i++) {
      const began = performance.now()
      await ask()
      times.push(performance.now() - began)
    }
    everything.push(...times)
    console.log(`${name}: p50 ${percentile(times, 0.5).toFixed(0)} ms, p95 ${percentile(times, 0.95).toFixed(0)} ms`)
  }
  console.log(
    `all small requests: p50 ${percentile(everything, 0.5).toFixed(0)} ms, p95 ` +
      `${percentile(everything, 0.95).toFixed(0)} ms; slices done meanwhile: ${JSON.stringify(statuses)}`,
  )
  leave.abort()
  await Promise.all(waiting)
}

/** A torus as binary STL. */
function torus(ring, tube, rings, sides) {
  const at = (i, j) => {
    const [u, v] = [(2 * Math.PI * i) / rings, (2 * Math.PI * j) / sides]
    return [(ring + tube * Math.cos(v)) * Math.cos(u), (ring + tube * Math.cos(v)) * Math.sin(u), tube * Math.sin(v)]
  }
  const count = 2 * rings * sides
  const file = new DataView(new ArrayBuffer(84 + 50 * count))
  file.setUint32(80, count, true)
  let offset = 84
  const face = (...corners) => {
    corners.flat().forEach((value, k) => file.setFloat32(offset + 12 + 4 * k, value, true))
    offset += 50
  }
  for (let i = 0; i < rings; i++)
    for (let j = 0; j < sides; j++) {
      face(at(i, j), at(i + 1, j), at(i + 1, j + 1))
      face(at(i, j), at(i + 1, j + 1), at(i, j + 1))
    }
  return file.buffer
}

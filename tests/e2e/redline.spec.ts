import { named, redline, taken } from '../../web/src/open-document/redline'
import { withIds } from '../../web/src/open-document/members'
import { expect, test } from './server'

/** Numbers that look random and are the same in every run (mulberry32). */
function randomOf(seed: number): () => number {
  let at = seed
  return () => {
    at = (at + 0x6d2b79f5) | 0
    let t = Math.imul(at ^ (at >>> 15), 1 | at)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
}

test('whatever is taken over of another document, what comes of it holds against the schema', async ({ request }) => {
  test.slow()
  const random = randomOf(20261129)
  const pick = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]!
  for (const kind of ['cards', 'filaments', 'recipes']) {
    const heads = (await (await request.get(`/api/${kind}`)).json()) as { id: string }[]
    const read = async (id: string) => withIds(((await (await request.get(`/api/${kind}/${id}`)).json()) as { document: object }).document)
    const all = await Promise.all(heads.map(({ id }) => read(id)))
    if (kind === 'cards') {
      const patterns = (await (await request.get('/api/patterns')).json()) as { id: string }[]
      for (const { id } of patterns) all.push(withIds((await (await request.get(`/api/patterns/${id}/card`)).json()) as object))
    }
    const broken: string[] = []
    for (let round = 0; round < 150; round++) {
      const mine = pick(all)
      const theirs = named(pick(all), mine)
      const differences = redline(mine, theirs)
      const share = random()
      const chosen = differences.filter(() => random() < share)
      const made = taken(mine, theirs, chosen)
      const answer = await request.post(`/api/${kind}/holds`, { data: made })
      if (answer.status() !== 204) broken.push(`${chosen.map(({ path }) => path.join('/')).join(', ')}: ${await answer.text()}`)
    }
    expect(broken.slice(0, 3).join('\n\n')).toBe('')
  }
})

import assert from 'node:assert/strict'
import { randomInt } from 'node:crypto'
import { appendFileSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { after, before, describe, test } from 'node:test'
import { Copy, kill, sleep } from './copy.mjs'

const kills = Number(process.env.KILLS ?? 2)

/** A copy for one test, removed afterwards. */
async function withCopy(does) {
  const copy = await Copy.make()
  try {
    await does(copy)
  } finally {
    await copy.remove()
  }
}

test(`a first start that is killed at any moment recovers, ${kills} times`, async (t) => {
  for (let i = 0; i < kills; i++)
    await withCopy(async (copy) => {
      copy.begin()
      const at = randomInt(50, 7000)
      await sleep(at)
      await copy.crash()
      await copy.start()
      assert.ok((await copy.json('/api/cards')).length >= 5, `killed after ${at} ms: the demo is not whole`)
      t.diagnostic(`killed after ${at} ms`)
    })
})

test(`a running copy that is killed at any moment recovers with all that was acknowledged, ${kills} times`, async (t) => {
  await withCopy(async (copy) => {
    await copy.start()
    let card = await copy.post('/api/cards', { name: 'edit 0' })
    let edits = 0
    for (let i = 0; i < kills; i++) {
      let on = true
      const editing = (async () => {
        while (on) {
          const next = await copy.save('cards', card, { ...card.document, name: `edit ${edits + 1}` }).catch(() => undefined)
          if (!next) return
          card = next
          edits++
        }
      })()
      await sleep(randomInt(100, 2000))
      await copy.crash()
      on = false
      await editing
      await copy.start()
      const kept = await copy.json(`/api/cards/${card.id}`)
      // the last one may have been kept without its answer getting out
      assert.ok([edits, edits + 1].includes(Number(kept.document.name.split(' ')[1])), `acknowledged ${edits}, kept ${kept.document.name}`)
      card = kept
      edits = Number(kept.document.name.split(' ')[1])
    }
    t.diagnostic(`${edits} edits acknowledged and kept`)
  })
})

describe('one copy', () => {
  let copy
  before(async () => {
    copy = await Copy.make()
    await copy.start()
  })
  after(() => copy.remove())

  test('a server or a database that dies is started again, and it is said', async () => {
    kill(copy.servers()[0])
    await copy.says('The server has ended')
    await copy.answers()
    kill(copy.postmasters()[0])
    await copy.says('The database has ended')
    await sleep(1000)
    await copy.answers()
    assert.ok((await copy.json('/api/cards')).length >= 5)
  })

  test('a second copy on its data, or on its port, is refused and said by whom it is taken', async () => {
    const second = new Copy(copy.data, copy.port)
    second.begin()
    assert.equal((await second.ended).code, 1)
    assert.match(second.said, /already runs on the data/)
    await withCopy(async (third) => {
      third.port = copy.port
      third.begin()
      assert.equal((await third.ended).code, 1)
      assert.match(third.said, new RegExp(`Port ${copy.port} is taken by .*process \\d+`))
    })
  })

  test('a print that is out: Ctrl+C asks once, SIGTERM switches the heaters off, and both are told after the next start', async () => {
    const dunlin = (await copy.json('/api/cards')).find((card) => card.name === 'Dunlin')
    const line = `/api/cards/${dunlin.id}/line`
    const print = async () => {
      await copy.post(`${line}/test`)
      await copy.post(`${line}/command`, { command: 'STAND_IN SPEED=5' })
      // the quickest to slice
      const trial = (await copy.json(`/api/trials?card=${dunlin.id}`)).find(({ name }) => name.startsWith('Float clamps'))
      await fetch(`${copy.url}/api/trials/${trial.id}/slice`, { method: 'POST' }).then((answer) => answer.text())
      await copy.post(`${line}/print`, { trial: trial.id, how: 'lines' })
      for (let i = 0; i < 200 && !((await copy.json(line)).job?.taken > 3); i++) await sleep(100)
    }
    // once more where the machine had so much else to do that the stand-in was silent for longer than switching off may take
    const stopped = async (stop) => {
      for (let again = 0; ; again++) {
        await print()
        copy.process.kill('SIGINT')
        await copy.says('A print is running, at line')
        assert.equal((await stop()).code, 0)
        await copy.start()
        const [job] = await copy.json(`${line}/jobs`)
        if (job.heaters === 'off' || again === 2) return job
      }
    }

    const terminated = await stopped(async () => {
      await sleep(1500)
      assert.equal((await copy.json(line)).job.state, 'sending')
      return copy.stop('SIGTERM')
    })
    assert.deepEqual([terminated.state, terminated.heaters, terminated.message], ['stopped', 'off', 'The server was stopped.'])
    assert.ok(terminated.line > 1)

    const twice = await stopped(() => copy.stop('SIGINT'))
    assert.equal(twice.heaters, 'off')
  })

  test('Ctrl+C without a print stops at once, and a number in a pid file is believed only if it is the database', async () => {
    assert.equal((await copy.stop('SIGINT')).code, 0)
    assert.deepEqual([copy.servers(), copy.postmasters()], [[], []])
    writeFileSync(join(copy.cluster, 'postmaster.pid'), `${process.pid}\n${copy.cluster}\n1\n5432\n\n127.0.0.1\n`)
    await copy.start()
    assert.ok((await copy.json('/api/cards')).length >= 5)
  })

  test('data of another PostgreSQL and of a newer Mill Card is refused with what to do', async () => {
    await copy.stop()
    const version = join(copy.cluster, 'PG_VERSION')
    const own = readFileSync(version, 'utf8')
    writeFileSync(version, '9\n')
    copy.begin()
    assert.equal((await copy.ended).code, 1)
    assert.match(copy.said, /made by PostgreSQL 9; PostgreSQL \d+ is installed here[\s\S]*mill-card backup/)
    writeFileSync(version, own)
    await copy.start()
    const database = copy.tool('sql', `insert into "__EFMigrationsHistory" values ('99990101000000_Later', '99')`)
    assert.equal(database.code, 0, database.said)
    await copy.stop()
    copy.begin()
    assert.equal((await copy.ended).code, 78)
    assert.match(copy.said, /newer Mill Card/)
    assert.equal(copy.tool('sql', `delete from "__EFMigrationsHistory" where "MigrationId" like '9999%'`).code, 0)
    await copy.start()
  })
})

test('a backup under load, restored elsewhere, has the same documents, revisions and files', async (t) => {
  const cards = Number(process.env.BACKUP_CARDS ?? 40)
  await withCopy(async (from) => {
    await from.start()
    const example = await from.json('/api/examples/card')
    for (let i = 0; i < cards; i++) await from.post('/api/cards', { ...example, name: `card ${i}` })
    await from.post(`/api/cards/${(await from.json('/api/cards'))[0].id}/revisions`, { note: 'as measured' })
    const written = new Map()
    let on = true
    const writers = await Promise.all([0, 1, 2, 3].map((n) => from.post('/api/cards', { ...example, name: `load ${n} 0` })))
    const loads = writers.map(async (card, n) => {
      written.set(card.id, [card.document.name])
      for (let i = 1; on; i++) {
        const name = `load ${n} ${i}`
        written.get(card.id).push(name)
        card = await from.save('cards', card, { ...card.document, name })
      }
    })
    await sleep(500)
    const file = join(from.data, 'backup.tar')
    const began = Date.now()
    const made = from.tool('backup', file)
    const backedUp = (Date.now() - began) / 1000
    on = false
    await Promise.all(loads)
    assert.equal(made.code, 0, made.said)
    assert.match(from.tool('backup', file).said, /is there already/)
    assert.match(from.tool('restore', file).said, /already runs/)

    await withCopy(async (to) => {
      const damaged = join(to.data, 'damaged.tar')
      writeFileSync(damaged, readFileSync(file))
      truncateSync(damaged, 5000)
      assert.notEqual(to.tool('restore', damaged).code, 0)
      const bytes = readFileSync(file)
      bytes[Math.floor(bytes.length / 2)] ^= 1
      writeFileSync(damaged, bytes)
      assert.match(to.tool('restore', damaged).said, /damaged/)
      const again = Date.now()
      const restored = to.tool('restore', file)
      assert.equal(restored.code, 0, restored.said)
      t.diagnostic(`${cards} cards: backed up in ${backedUp.toFixed(1)} s, restored in ${((Date.now() - again) / 1000).toFixed(1)} s`)
      const checked = to.tool('check')
      assert.equal(checked.code, 0, checked.said)
      assert.match(checked.said, /nothing is wrong/)
      assert.match(to.tool('restore', file).said, /There is data in/)
      await to.start()
      for (const kind of ['cards', 'filaments', 'recipes', 'trials']) {
        const [there, here] = await Promise.all([from, to].map((copy) => copy.json(`/api/${kind}`)))
        assert.deepEqual(here.map(({ id }) => id).sort(), there.map(({ id }) => id).sort())
        for (const { id } of there) {
          const [a, b] = await Promise.all([from, to].map((copy) => copy.json(`/api/${kind}/${id}`)))
          if (written.has(id)) assert.ok(written.get(id).includes(b.document.name))
          else assert.deepEqual(b.document, a.document)
          if (kind !== 'trials')
            assert.deepEqual(await to.json(`/api/${kind}/${id}/revisions`), await from.json(`/api/${kind}/${id}/revisions`))
        }
      }
      for (const trial of await to.json('/api/trials'))
        for (const { file: hash } of (await to.json(`/api/trials/${trial.id}`)).document.parts ?? []) {
          const [a, b] = await Promise.all([from, to].map((copy) => copy.json(`/api/meshes/${hash}`)))
          assert.deepEqual(b, a)
        }
      await to.stop()
      assert.equal(to.tool('restore', file, '--replace').code, 0)
      await to.start()
      assert.ok((await to.json('/api/cards')).length >= cards)
    })
  })
})

test('what is wrong with the data is found', async () => {
  await withCopy(async (copy) => {
    await copy.start()
    assert.equal(copy.tool('check').code, 0)
    for (const sql of [
      `update blob set bytes = bytes || 'x'::bytea where hash = (select min(hash) from blob)`,
      `update document set draft = '{"schema":"mill-card/card/1","envelope":{"height":-5}}' where id = (select ` +
        `min(id::text)::uuid from document where kind = 'card')`,
      `delete from blob where hash = (select max(hash) from blob where media_type = 'model/stl') and not exists ` +
        `(select 1 from run where program = hash)`,
    ])
      assert.equal(copy.tool('sql', sql).code, 0)
    const checked = copy.tool('check')
    assert.equal(checked.code, 1)
    for (const sentence of [/is not what it was/, /does not hold: Height/, /which is not there/]) assert.match(checked.said, sentence)
  })
})

test('a long log of the database stays within its bounds', async () => {
  await withCopy(async (copy) => {
    await copy.start()
    await copy.stop()
    const log = join(copy.cluster, 'server.log')
    appendFileSync(log, 'x'.repeat(6 << 20))
    await copy.start()
    for (let i = 0; i < 100 && readFileSync(log).length > 5 << 20; i++) await sleep(100)
    assert.ok(readFileSync(log).length < 1 << 20)
    assert.ok(readFileSync(`${log}.1`).length > 6 << 20)
    rmSync(`${log}.1`)
  })
})

test('the shipped patterns hold to their signature, by the tool that makers have', async () => {
  await withCopy((copy) => {
    const checked = copy.tool('patterns', 'check', 'patterns')
    assert.equal(checked.code, 0, checked.said)
    assert.match(checked.said, /Mill Card \(mill-card\), number \d+: \d+ patterns .* all checksums hold/)
    assert.equal(copy.tool('patterns', 'check', 'docs').code, 1)
    assert.equal(copy.tool('patterns').code, 2)
  })
})

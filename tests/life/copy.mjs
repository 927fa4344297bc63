// A running copy of Mill Card with data and port of its own, started as its owner starts it, and ended in every way there is.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..')
export const sleep = (milliseconds) => new Promise((wait) => setTimeout(wait, milliseconds))

/** Two free ports in a row: the application's, and its stand-in's. */
export async function freePort() {
  const listen = (port) =>
    new Promise((ready, taken) => {
      const probe = createServer()
      probe.once('error', taken)
      probe.listen(port, '127.0.0.1', () => ready(probe))
    })
  for (;;) {
    const first = await listen(0)
    const { port } = first.address()
    const second = await listen(port + 1).catch(() => undefined)
    await Promise.all([first, second].filter(Boolean).map((probe) => new Promise((closed) => probe.close(closed))))
    if (second) return port
  }
}

export class Copy {
  constructor(data, port) {
    Object.assign(this, { data, port, said: '', url: `http://127.0.0.1:${port}` })
  }

  static async make() {
    return new Copy(mkdtempSync(join(tmpdir(), 'mill-card-life-')), await freePort())
  }

  get env() {
    return { ...process.env, WarmUp: 'false', MILLCARD_DEMO_PROOFS: 'false', MILLCARD_DATA: this.data, PORT: String(this.port) }
  }

  /** Runs start.sh; its group is its own, so that it can be ended whole. */
  begin() {
    this.said = ''
    this.process = spawn('bash', ['start.sh'], { cwd: root, env: this.env, detached: true, stdio: ['ignore', 'pipe', 'pipe'] })
    // a run that is broken off ends its copies, wherever it is broken off
    const watch = spawn('bash', ['-c', `cat > /dev/null; kill -TERM -${this.process.pid}`], {
      detached: true,
      stdio: ['pipe', 'ignore', 'ignore'],
    })
    watch.unref()
    watch.stdin.unref()
    this.process.once('close', () => watch.kill('SIGKILL'))
    this.ended = new Promise((end) => this.process.once('close', (code, signal) => end({ code, signal })))
    for (const stream of [this.process.stdout, this.process.stderr]) stream.on('data', (text) => (this.said += text))
  }

  async start() {
    this.begin()
    // it answers a moment before start.sh has seen that it does
    const over = await Promise.race([this.answers().then(() => this.says('Mill Card is at')), this.ended])
    if (over) throw new Error(`it ended with ${JSON.stringify(over)}:\n${this.said}`)
  }

  async answers(seconds = 120) {
    for (const last = Date.now() + seconds * 1000; Date.now() < last; await sleep(100))
      if (
        await fetch(`${this.url}/api/health`).then(
          (answer) => answer.ok,
          () => false,
        )
      )
        return
    throw new Error(`it did not answer within ${seconds} s:\n${this.said}`)
  }

  async says(text, seconds = 60) {
    for (const last = Date.now() + seconds * 1000; Date.now() < last; await sleep(50)) if (this.said.includes(text)) return
    throw new Error(`it did not say "${text}":\n${this.said}`)
  }

  async stop(signal = 'SIGTERM') {
    this.process.kill(signal)
    return this.ended
  }

  /** Processes that belong to this copy, by what they were started with. */
  pids(...words) {
    return readdirSync('/proc')
      .filter((name) => /^\d+$/.test(name) && Number(name) !== process.pid)
      .filter((pid) => {
        try {
          const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ')
          return words.every((word) => line.includes(word))
        } catch {
          return false
        }
      })
      .map(Number)
  }

  get cluster() {
    if (existsSync(join(this.data, 'db', 'cluster'))) return join(this.data, 'db', 'cluster')
    const told = /kept in (\S+?)\.\n/.exec(this.said)?.[1]
    return join(told ?? join(this.data, 'db'), 'cluster')
  }

  servers = () => this.pids('MillCard.Web.dll', `--data ${this.data} `)
  printers = () => this.pids('MillCard.StandIn.dll', `--data ${this.data} `)
  postmasters = () => this.pids('bin/postgres', '-D', this.cluster)

  /** As if the power had gone: everything at once, nothing gets a word. */
  async crash() {
    process.kill(-this.process.pid, 'SIGKILL')
    for (const pid of [...this.servers(), ...this.printers(), ...this.postmasters(), ...this.pids('initdb', this.data)]) kill(pid)
    await this.ended
    await sleep(200)
  }

  /** One of the words of mill-card; its exit code and all it said. */
  tool(...words) {
    const { status, stdout, stderr } = spawnSync('bash', ['mill-card', ...words], { cwd: root, env: this.env, encoding: 'utf8' })
    return { code: status, said: stdout + stderr }
  }

  async remove() {
    if (this.process && this.process.exitCode === null && this.process.signalCode === null) await this.stop()
    for (const pid of [...this.servers(), ...this.postmasters(), ...this.printers()]) kill(pid)
    rmSync(dirname(this.cluster), { recursive: true, force: true })
    rmSync(this.data, { recursive: true, force: true })
  }

  async json(path, init) {
    const answer = await fetch(this.url + path, init)
    if (!answer.ok) throw new Error(`${path} answered ${answer.status}: ${await answer.text()}`)
    return answer.status === 204 ? undefined : answer.json()
  }

  post = (path, body) =>
    this.json(path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: body === undefined ? undefined : JSON.stringify(body),
    })

  /** Saves a draft; the version is that of the last answer. */
  save = (kind, { id, version }, document) =>
    this.json(`/api/${kind}/${id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'if-match': `"${version}"` },
      body: JSON.stringify(document),
    })
}

export function kill(pid, signal = 'SIGKILL') {
  try {
    process.kill(pid, signal)
  } catch {
    // it has ended by itself
  }
}

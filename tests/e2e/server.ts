import { spawn, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { createServer } from 'node:net'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { test as base } from '@playwright/test'

const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..')
export const demoPart = (name: string) => join(root, 'demo', 'parts', `${name}.stl`)

/** Runs a command until its input ends, which it does when whoever holds it is gone: a run that is broken off leaves no server. */
const untilLetGo = '"$0" "$@" <&- & cat > /dev/null; kill -KILL $!; wait'

/** The built server on a port and a database of its own, in the cluster that test.sh starts. */
export class Server {
  private process: ChildProcess | undefined

  private constructor(
    private readonly port: number,
    private readonly connection: string,
  ) {}

  static async on(cluster: string): Promise<Server> {
    const server = new Server(await freePort(), cluster.replace(/Database=[^;]*/, `Database=e2e_${randomUUID().replaceAll('-', '')}`))
    await server.start()
    return server
  }

  get url() {
    return `http://127.0.0.1:${this.port}`
  }

  async start() {
    const folder = join(root, 'src/MillCard.Web/bin/Release/net10.0')
    this.process = spawn('bash', ['-c', untilLetGo, 'dotnet', join(folder, 'MillCard.Web.dll'), '--urls', this.url], {
      cwd: folder,
      stdio: ['pipe', 'inherit', 'inherit'],
      env: {
        ...process.env,
        // the tests' machine has enough to do
        WarmUp: 'false',
        DOTNET_TieredCompilation: '1',
        ConnectionStrings__MillCard: this.connection,
        Demo: join(root, 'demo'),
        Pages: join(root, 'web/dist'),
        DOTNET_ENVIRONMENT: 'Production',
      },
    })
    for (let i = 0; i < 1200; i++) {
      if (
        await fetch(`${this.url}/api/health`).then(
          (answer) => answer.ok,
          () => false,
        )
      )
        return
      await new Promise((wait) => setTimeout(wait, 100))
    }
    throw new Error('the server did not answer within two minutes')
  }

  /** Ends it the hard way. */
  async kill() {
    const ended = new Promise((end) => this.process!.once('exit', end))
    this.process!.stdin!.end()
    await ended
  }
}

async function freePort(): Promise<number> {
  const probe = createServer().listen(0, '127.0.0.1')
  await new Promise((ready) => probe.once('listening', ready))
  const { port } = probe.address() as { port: number }
  await new Promise((closed) => probe.close(closed))
  return port
}

export const test = base.extend<{ baseURL: string }, { server: Server }>({
  server: [
    async ({}, use) => {
      const cluster = process.env.CONNECTION
      if (!cluster) throw new Error("These tests need a PostgreSQL cluster: run ./test.sh, or set CONNECTION to one's connection string.")
      const server = await Server.on(cluster)
      await use(server)
      await server.kill()
    },
    { scope: 'worker', timeout: 60_000 },
  ],
  baseURL: async ({ server }, use) => use(server.url),
  // all tests of a worker share the demo cards: what a test took back last must be saved before its page goes
  page: async ({ page }, use) => {
    await use(page)
    if (!page.isClosed()) await page.waitForFunction(nothingToSave, undefined, { timeout: 10_000 }).catch(() => undefined)
  },
})

const nothingToSave = () => !document.querySelector('[data-save=waiting], [data-save=saving]')

export { expect } from '@playwright/test'

// Says who listens on a port of loopback; nothing where nobody does.
import { readFileSync, readdirSync, readlinkSync } from 'node:fs'
import { createServer } from 'node:net'

const port = Number(process.argv[2])
const probe = createServer()
probe.once('error', () => console.log(owner() ?? 'another program'))
probe.listen(port, '127.0.0.1', () => probe.close())

function owner() {
  const listening = '0A'
  const wanted = port.toString(16).toUpperCase().padStart(4, '0')
  const inodes = ['/proc/net/tcp', '/proc/net/tcp6']
    .flatMap((table) => lines(table).map((line) => line.trim().split(/\s+/)))
    .filter((columns) => columns[1]?.endsWith(`:${wanted}`) && columns[3] === listening)
    .map((columns) => `socket:[${columns[9]}]`)
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name))) {
    try {
      for (const file of readdirSync(`/proc/${pid}/fd`))
        if (inodes.includes(readlinkSync(`/proc/${pid}/fd/${file}`)))
          return `${readFileSync(`/proc/${pid}/comm`, 'utf8').trim()}, process ${pid}`
    } catch {
      // a process of somebody else, or one that has just ended
    }
  }
}

function lines(file) {
  try {
    return readFileSync(file, 'utf8').split('\n').slice(1)
  } catch {
    return []
  }
}

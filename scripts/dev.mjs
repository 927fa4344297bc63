// Server and pages beside each other, both reloaded when their code changes; ends both when one ends. CONNECTION names the database.
import { spawn } from 'node:child_process'

const { CONNECTION } = process.env
if (!CONNECTION) {
  console.error(
    "CONNECTION is missing: a PostgreSQL connection string with the database's name, such as Host=127.0.0.1;Database=millcard;…",
  )
  process.exit(1)
}
const server = spawn('dotnet', ['watch', '--project', 'src/MillCard.Web', 'run', '--', '--urls', 'http://127.0.0.1:7420'], {
  stdio: 'inherit',
  detached: true,
  env: { ...process.env, ConnectionStrings__MillCard: CONNECTION, Demo: `${process.cwd()}/demo` },
})
const pages = spawn('npm', ['run', 'dev', '-w', 'web'], { stdio: 'inherit', detached: true })
const both = [server, pages]

/** Each runs others, which are to end with it; what watches files does not end when it is asked to. */
const end = (one) => {
  try {
    process.kill(-one.pid, 'SIGKILL')
  } catch {
    // it is gone already
  }
}
for (const one of both)
  one.once('exit', (code) => {
    both.forEach(end)
    process.exitCode ??= code ?? 0
  })
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => both.forEach(end))

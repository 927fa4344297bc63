// Server and pages beside each other, both reloaded when their code changes; ends both when one ends. CONNECTION names the database.
import { spawn } from 'node:child_process'

const { CONNECTION, PORT = '7420' } = process.env
if (!CONNECTION) {
  console.error(
    "CONNECTION is missing: a PostgreSQL connection string with the database's name, such as Host=127.0.0.1;Database=millcard;…",
  )
  process.exit(1)
}
const server = spawn('dotnet', ['watch', '--project', 'src/MillCard.Web', 'run', '--', '--urls', `http://127.0.0.1:${PORT}`], {
  stdio: 'inherit',
  env: { ...process.env, ConnectionStrings__MillCard: CONNECTION, Demo: `${process.cwd()}/demo` },
})
const pages = spawn('npm', ['run', 'dev', '-w', 'web'], { stdio: 'inherit' })
const both = [server, pages]
for (const one of both)
  one.once('exit', (code) => {
    for (const other of both) other.kill('SIGTERM')
    process.exitCode ??= code ?? 0
  })
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => both.forEach((one) => one.kill(signal)))

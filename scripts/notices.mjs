// Writes THIRD-PARTY-NOTICES.md: what the application ships of others, with its licence. With --check it only compares.
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { homedir } from 'node:os'
import { join } from 'node:path'

const out = 'THIRD-PARTY-NOTICES.md'

/** Packages of the pages: those of the lock file that are not for building or testing alone, and that the pages ask for. */
function ofPages() {
  const { packages } = JSON.parse(readFileSync('package-lock.json', 'utf8'))
  const wanted = new Set()
  const take = (name) => {
    const found = packages[`node_modules/${name}`]
    if (!found || wanted.has(name) || found.link) return
    wanted.add(name)
    for (const inner of Object.keys({ ...found.dependencies, ...found.peerDependencies })) take(inner)
  }
  for (const name of Object.keys(packages.web.dependencies)) take(name)
  return [...wanted].sort().map((name) => {
    const { version, license } = packages[`node_modules/${name}`]
    return { name, version, licence: license ?? 'not said' }
  })
}

/** Packages of the server, from its lock file; the licence is the one that each package's description names. */
function ofServer() {
  const cache = process.env.NUGET_PACKAGES ?? join(homedir(), '.nuget', 'packages')
  const lock = JSON.parse(readFileSync('src/MillCard.Web/packages.lock.json', 'utf8'))
  const all = Object.values(lock.dependencies).flatMap((target) => Object.entries(target))
  const named = new Map(all.filter(([, { type }]) => type !== 'Project').map(([name, { resolved }]) => [name, resolved]))
  return [...named]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([name, version]) => {
      const folder = join(cache, name.toLowerCase(), version)
      if (!existsSync(folder)) throw new Error(`${name} ${version} is not here; run dotnet restore first.`)
      const nuspec = readFileSync(
        join(
          folder,
          readdirSync(folder).find((file) => file.endsWith('.nuspec')),
        ),
        'utf8',
      )
      const licence = /<license type="expression">([^<]+)</.exec(nuspec)?.[1] ?? /<licenseUrl>([^<]+)</.exec(nuspec)?.[1]
      return { name, version, licence: licence ?? 'in the package' }
    })
}

const table = (rows) =>
  ['| Package | Version | Licence |', '| --- | --- | --- |', ...rows.map((r) => `| ${r.name} | ${r.version} | ${r.licence} |`)].join('\n')

const text = `# Third-party notices

What Mill Card ships of others. Made by \`node scripts/notices.mjs\`; \`./test.sh\` holds it against the lock files.

## Pages (fonts among them)

${table(ofPages())}

## Server

${table(ofServer())}
`

if (!process.argv.includes('--check')) writeFileSync(out, text)
else if (!existsSync(out) || readFileSync(out, 'utf8') !== text) {
  console.error(`${out} is not what the lock files say; run node scripts/notices.mjs.`)
  process.exit(1)
}

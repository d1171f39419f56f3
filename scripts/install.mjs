import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { run } from './run.mjs'
import { Explained, say } from './say.mjs'

export const root = fileURLToPath(new URL('..', import.meta.url))
const stamps = path.join(root, 'node_modules', '.cache', 'yperkine')

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19)) {
    throw new Explained(`Yperkine needs Node.js 20.19 or newer; this is ${process.versions.node}.`)
  }
}

function hashOf(files) {
  const hash = createHash('sha256')
  for (const file of files) hash.update(file).update('\0').update(readFileSync(file)).update('\0')
  return hash.digest('hex')
}

const stampOf = (name) => path.join(stamps, name)
const isStamped = (name, value) =>
  existsSync(stampOf(name)) && readFileSync(stampOf(name), 'utf8') === value
function stamp(name, value) {
  mkdirSync(stamps, { recursive: true })
  writeFileSync(stampOf(name), value)
}

/**
 * Installs the npm packages, unless those of this very lock file are in place. `tell` says so: what
 * is printed as data keeps such words out of its way.
 */
export async function installPackages(tell = say) {
  const lockFile = path.join(root, 'package-lock.json')
  if (isStamped('packages', hashOf([lockFile]))) return
  tell('Installing packages from npm (a minute or so the first time) …')
  // Not npm ci: it refuses a lock file without the optional binaries of other systems, and a
  // registry that does not have those leaves them out. npm install keeps to the lock file as well.
  const args = ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error']
  const { code, output } = await run('npm', args, { cwd: root, quiet: true })
  if (code !== 0) {
    // npm's own advice is long; its first lines name the cause.
    const cause = output.trim().split('\n').slice(0, 8).join('\n')
    throw new Explained(`The npm packages could not be installed:\n${cause}`)
  }
  stamp('packages', hashOf([lockFile]))
}

function filesBelow(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const full = path.join(folder, entry.name)
    if (entry.isDirectory()) {
      return ['node_modules', 'dist'].includes(entry.name) ? [] : filesBelow(full)
    }
    return entry.name.includes('.test.') ? [] : [full]
  })
}

/** Builds page and server, unless what stands there was built from these very sources. */
export async function buildAll() {
  const sources = ['core', 'web', 'server'].flatMap((p) => filesBelow(path.join(root, p))).sort()
  const hash = hashOf([...sources, path.join(root, 'package-lock.json')])
  const built = ['web/dist/index.html', 'server/dist/main.js']
  if (isStamped('build', hash) && built.every((f) => existsSync(path.join(root, f)))) return
  say('Building the page and the server …')
  const { code, output } = await run('npm', ['run', 'build', '--silent'], {
    cwd: root,
    quiet: true,
  })
  if (code !== 0) throw new Explained(`The build failed:\n${output.trim()}`)
  stamp('build', hash)
}

const asRoot = () => process.getuid?.() === 0
let listsFresh = false

/** Installs a Debian package, where that is possible and allowed; says what to do where not. */
export async function installDebianPackage(name, purpose) {
  const byHand = `Install it by hand (sudo apt-get install ${name}) and try again.`
  if (!existsSync('/usr/bin/apt-get')) {
    throw new Explained(`${purpose} is missing and there is no apt-get here to install it with.`)
  }
  if (!asRoot()) {
    throw new Explained(`${purpose} is missing and only root may install it. ${byHand}`)
  }
  say(`Installing ${name} from Debian's packages …`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  if (!listsFresh) {
    await run('apt-get', ['update', '-q'], { quiet: true, env })
    listsFresh = true
  }
  const { code, output } = await run(
    'apt-get',
    ['install', '-y', '-q', '--no-install-recommends', name],
    { quiet: true, env },
  )
  if (code !== 0) throw new Explained(`${name} could not be installed. ${byHand}\n${output.trim()}`)
}

/** Bundles a file of core with what it imports, and gives the path of what came of it. */
export async function bundleCore(entry, name, part = 'core') {
  const { build } = await import('vite')
  const outDir = path.join(root, 'node_modules', '.cache', 'yperkine', name)
  await build({
    root: path.join(root, part),
    configFile: false,
    logLevel: 'warn',
    build: { ssr: entry, outDir, target: 'node20', emptyOutDir: true },
    ssr: { noExternal: ['@yperkine/core'] },
  })
  return path.join(outDir, `${path.parse(entry).name}.js`)
}

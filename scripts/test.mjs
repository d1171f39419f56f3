import { existsSync, rmSync } from 'node:fs'
import { startDatabase, temporaryFolder } from './database.mjs'
import { buildAll, checkNode, installDebianPackage, installPackages, root } from './install.mjs'
import { run } from './run.mjs'
import { Explained, runMain, say } from './say.mjs'

/** Chromium without a window: a third less work for each page than the one with windows. */
const chromium = 'chromium-headless-shell'

/** The checks in order, each a heading and a command; arguments choose some of them by name. */
const checks = {
  format: ['Format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
  lint: ['Lint', 'npx', ['eslint', '.']],
  types: ['Types', 'npm', ['run', '--silent', 'types']],
  unit: ['Unit and API tests', 'npx', ['jest']],
  browser: ['Browser tests', 'npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts']],
}

/** What reads the files that the page makes: nothing of the project's own. */
const readers = [
  ['xmllint', 'libxml2-utils', 'A reader of XML'],
  ['rsvg-convert', 'librsvg2-bin', 'A reader of SVG'],
  ['pdftotext', 'poppler-utils', 'A reader of PDF'],
]

const readsOnly = new Set(['format', 'lint', 'types'])

runMain(async () => {
  checkNode()
  // What stands behind -- goes to the chosen checks, such as the name of a test file.
  const args = process.argv.slice(2)
  const dashes = args.indexOf('--')
  const asked = dashes < 0 ? args : args.slice(0, dashes)
  const passedOn = dashes < 0 ? [] : args.slice(dashes + 1)
  const unknown = asked.find((name) => !(name in checks))
  if (unknown) {
    throw new Explained(
      `There is no check “${unknown}”; there are ${Object.keys(checks).join(', ')}.`,
    )
  }
  const chosen = asked.length > 0 ? asked : Object.keys(checks)
  await installPackages()
  if (chosen.includes('browser')) {
    if (!existsSync(`/usr/bin/${chromium}`)) await installDebianPackage(chromium, 'Chromium')
    for (const [tool, name, purpose] of readers) {
      if (!existsSync(`/usr/bin/${tool}`)) await installDebianPackage(name, purpose)
    }
    await buildAll()
  }
  let db = null
  let folder = null
  const env = { ...process.env }
  const clean = async () => {
    await db?.stop()
    if (folder) rmSync(folder, { recursive: true, force: true })
  }
  const onSignal = () => void clean().then(() => process.exit(130))
  process.on('SIGINT', onSignal)
  process.on('SIGTERM', onSignal)
  try {
    if (chosen.includes('unit') || chosen.includes('browser')) {
      say('Starting a fresh database for the tests …')
      folder = temporaryFolder()
      // A test cluster is thrown away, so nothing in it needs to reach the disk.
      db = await startDatabase(folder, { flags: ['-c', 'fsync=off', '-c', 'full_page_writes=off'] })
      env.DATABASE_URL = db.create('api')
      env.BROWSER_DATABASE_URL = db.create('browser')
    }
    const failed = []
    const check = (name, options) => {
      const [, command, fixed] = checks[name]
      return run(command, [...fixed, ...passedOn], { cwd: root, env, ...options })
    }
    const tell = (name, code) => {
      if (code !== 0) failed.push(checks[name][0])
    }
    // What only reads the code goes side by side; what runs it needs the machine for itself.
    const reading = chosen.filter((name) => readsOnly.has(name))
    if (reading.length > 0) {
      say(`\n— ${reading.map((name) => checks[name][0]).join(', ')}`)
      const ended = await Promise.all(reading.map((name) => check(name, { quiet: true })))
      ended.forEach(({ code, output }, i) => {
        if (code !== 0) say(output.trim())
        tell(reading[i], code)
      })
    }
    for (const name of chosen.filter((one) => !readsOnly.has(one))) {
      say(`\n— ${checks[name][0]}`)
      const { code } = await check(name)
      tell(name, code)
    }
    const passed = chosen.length - failed.length
    say(failed.length > 0 ? `\nFailed: ${failed.join(', ')}` : '\nAll checks passed.')
    say(`${passed} passed, ${failed.length} failed`)
    process.exitCode = failed.length > 0 ? 1 : 0
  } finally {
    await clean()
  }
})

import { spawnSync } from 'node:child_process'
import { existsSync, readdirSync } from 'node:fs'
import { temporaryFolder } from './database.mjs'
import { bundleCore, checkNode, installPackages, root } from './install.mjs'
import { run } from './run.mjs'
import { Explained, runMain, say } from './say.mjs'

// npm run latex            compiles the pictures and the working of every example, and hostile words
// npm run latex -- FOLDER  keeps the sources and the pages there

/** What compiles them: no part of the project, and only wanted here. */
const compiler = '/usr/bin/pdflatex'

runMain(async () => {
  checkNode()
  await installPackages()
  if (!existsSync(compiler)) {
    throw new Explained(
      'This check wants pdflatex: apt-get install --no-install-recommends texlive-latex-recommended texlive-pictures texlive-fonts-recommended lmodern',
    )
  }
  const folder = process.argv[2] ?? temporaryFolder()
  const writer = await bundleCore('bench/latex.ts', 'latex', 'server')
  const { code } = await run(process.execPath, [writer, folder], { cwd: root })
  if (code !== 0) throw new Explained('The sources could not be written.')
  const sources = readdirSync(folder).filter((name) => name.endsWith('.tex'))
  const failed = sources.filter((name) => {
    const options = ['-no-shell-escape', '-interaction=nonstopmode', '-halt-on-error', name]
    const { status, stdout } = spawnSync(compiler, options, { cwd: folder, encoding: 'latin1' })
    if (status !== 0) say(`${name}: ${stdout.split('\n').find((l) => l.startsWith('!')) ?? ''}`)
    return status !== 0
  })
  say(`${sources.length - failed.length} of ${sources.length} sources compile: ${folder}`)
  process.exitCode = failed.length > 0 ? 1 : 0
})

import { existsSync } from 'node:fs'
import path from 'node:path'
import { measureFrames } from './frames.mjs'
import { buildAll, checkNode, installDebianPackage, installPackages, root } from './install.mjs'
import { measureLoad } from './load.mjs'
import { run } from './run.mjs'
import { Explained, runMain } from './say.mjs'

runMain(async () => {
  checkNode()
  await installPackages()
  const { build } = await import('vite')
  const outDir = path.join(root, 'node_modules', '.cache', 'yperkine', 'bench')
  await build({
    root: path.join(root, 'core'),
    configFile: false,
    logLevel: 'warn',
    build: { ssr: 'bench/main.ts', outDir, target: 'node20', emptyOutDir: true },
  })
  const { code } = await run(process.execPath, [path.join(outDir, 'main.js')], { cwd: root })
  if (code !== 0) throw new Explained('The measurement of core failed.')
  if (!existsSync('/usr/bin/chromium')) await installDebianPackage('chromium', 'Chromium')
  await buildAll()
  await measureFrames()
  await measureLoad()
})

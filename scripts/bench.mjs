import { existsSync } from 'node:fs'
import { measureFrames } from './frames.mjs'
import {
  buildAll,
  bundleCore,
  checkNode,
  installDebianPackage,
  installPackages,
  root,
} from './install.mjs'
import { measureLoad } from './load.mjs'
import { run } from './run.mjs'
import { Explained, runMain } from './say.mjs'

runMain(async () => {
  checkNode()
  await installPackages()
  const bench = await bundleCore('bench/main.ts', 'bench')
  const { code } = await run(process.execPath, [bench], { cwd: root })
  if (code !== 0) throw new Explained('The measurement of core failed.')
  const lessons = await bundleCore('bench/main.ts', 'lessons', 'server')
  const { code: told } = await run(process.execPath, [lessons], { cwd: root })
  if (told !== 0) throw new Explained('The measurement of lessons failed.')
  if (!existsSync('/usr/bin/chromium')) await installDebianPackage('chromium', 'Chromium')
  await buildAll()
  await measureFrames()
  await measureLoad()
})

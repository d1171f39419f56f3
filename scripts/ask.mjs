import { pathToFileURL } from 'node:url'
import { bundleCore, checkNode, installPackages } from './install.mjs'
import { runMain, say } from './say.mjs'

// npm run ask -- "q(t) = 6 + sin t" "tangent at 2" "area 0 to 4"      as a person would read it
// npm run ask -- "q(t) = 6 + sin t" "tangent at 2" --json             as data

runMain(async () => {
  checkNode()
  // What is asked for goes to the output, and nothing else.
  await installPackages(console.error)
  const { ask } = await import(pathToFileURL(await bundleCore('ask/main.ts', 'ask')).href)
  const { text, ok } = ask(process.argv.slice(2))
  say(text)
  process.exitCode = ok ? 0 : 1
})

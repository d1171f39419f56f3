import { run } from './run.mjs'
import { installPackages, root } from './install.mjs'
import { runMain } from './say.mjs'

// npm run unit             the quick tests of core and page, a few seconds each
// npm run unit -- FILE     that file alone, whatever it belongs to
const files = process.argv.slice(2)
const quick = ['core', 'web', 'parts', 'house'].flatMap((name) => ['--selectProjects', name])

runMain(async () => {
  await installPackages()
  const ofServer = files.some((file) => /(^|\/)server\//.test(file))
  // The server's tests want a database, which the whole test command starts.
  const [command, args] = ofServer
    ? ['node', ['scripts/test.mjs', 'unit', '--', ...files]]
    : ['npx', ['jest', ...(files.length > 0 ? files : quick)]]
  const { code } = await run(command, args, { cwd: root })
  process.exitCode = code
})

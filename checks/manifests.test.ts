import { readFileSync } from 'node:fs'
import { isBuiltin } from 'node:module'
import path from 'node:path'
import { filesBelow, importsOf, root } from './sources'

interface Manifest {
  dependencies?: Record<string, string>
  devDependencies?: Record<string, string>
}
const manifestOf = (folder: string) =>
  JSON.parse(readFileSync(path.join(root, folder, 'package.json'), 'utf8')) as Manifest

/** @scope/name/part → @scope/name */
const packageOf = (from: string) =>
  from
    .split('/')
    .slice(0, from.startsWith('@') ? 2 : 1)
    .join('/')

const ofTests = new Set(Object.keys(manifestOf('.').devDependencies ?? {}))

describe.each(['core', 'web', 'server', 'e2e'])('the manifest of %s', (folder) => {
  const { dependencies = {}, devDependencies = {} } = manifestOf(folder)
  const files = filesBelow(path.join(root, folder), /\.(tsx?|css)$/)
  const imported = files.flatMap((file) =>
    importsOf(file).flatMap(({ from, typesOnly }) => {
      // What vite makes up, such as the address of a worker, is no package.
      if (from.startsWith('.') || from.startsWith('virtual:') || isBuiltin(from)) return []
      const name = packageOf(from)
      const forTests =
        /\.test\.|\/testing|\/fuzz\/|\/bench\/|\/(?:vite|takeAway)\.config|\.css$/.test(file)
      return [{ file: path.relative(root, file), name, typesOnly, forTests }]
    }),
  )

  test('declares what its code imports', () => {
    for (const { file, name, typesOnly, forTests } of imported) {
      const mayBeDev = typesOnly || forTests || folder === 'e2e'
      const types = `@types/${name}`
      const declared =
        name in dependencies ||
        (mayBeDev && (name in devDependencies || types in devDependencies || ofTests.has(name)))
      expect([file, name, declared]).toEqual([file, name, true])
    }
  })

  test('declares nothing that nobody imports', () => {
    const names = new Set(imported.map(({ name }) => name))
    const configured = files.map((file) => readFileSync(file, 'utf8')).join('\n')
    for (const name of [...Object.keys(dependencies), ...Object.keys(devDependencies)]) {
      const meant = name.replace(/^@types\//, '')
      const used = names.has(meant) || configured.includes(`'${meant}`) || ofUse(meant)
      expect([name, used]).toEqual([name, true])
    }
  })

  test('keeps types among what only development needs', () => {
    expect(Object.keys(dependencies).filter((name) => name.startsWith('@types/'))).toEqual([])
  })
})

/** Packages that others load by name: the driver of the database, react in every component. */
const ofUse = (name: string) => ['pg', 'react', 'react-dom'].includes(name)

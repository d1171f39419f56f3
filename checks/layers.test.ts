import { existsSync, readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import { filesBelow, importsOf, root } from './sources'

const core = path.join(root, 'core/src')
const isHelper = (file: string) => /\.test\.ts$|\/testing\.ts$/.test(file)
const files = filesBelow(core, /\.ts$/).filter((file) => !isHelper(file))
const known = new Set(files)
const short = (file: string) => path.relative(core, file).replace(/\.ts$/, '')

/** What a file imports from core itself; types only where asked. */
const inside = (file: string, typesToo: boolean): string[] =>
  importsOf(file).flatMap(({ from, typesOnly }) => {
    if (!from.startsWith('.') || (typesOnly && !typesToo) || from.endsWith('.json')) return []
    const to = path.resolve(path.dirname(file), from)
    return [existsSync(`${to}.ts`) ? `${to}.ts` : path.join(to, 'index.ts')]
  })

test('no file of core stands on itself, for types either, however long the way round', () => {
  const done = new Set<string>()
  const circles: string[] = []
  const visit = (file: string, way: readonly string[]) => {
    if (way.includes(file)) {
      circles.push([...way.slice(way.indexOf(file)), file].map(short).join(' → '))
      return
    }
    if (done.has(file)) return
    for (const next of inside(file, true)) visit(next, [...way, file])
    done.add(file)
  }
  for (const file of files) visit(file, [])
  expect(circles).toEqual([])
})

test('every import of core leads to a file of core', () => {
  for (const file of files) {
    for (const to of inside(file, true)) expect([file, known.has(to)]).toEqual([file, true])
  }
})

/** The layers as docs/architecture.md lists them, from the ground up. */
const documented = [
  ...readFileSync(path.join(root, 'docs/architecture.md'), 'utf8').matchAll(/^\| `(\w+)\/`\s+\|/gm),
].map(([, layer]) => layer!)

test('the document on the architecture names every layer, and no other', () => {
  const folders = readdirSync(core, { withFileTypes: true }).filter((e) => e.isDirectory())
  expect([...documented].sort()).toEqual(folders.map((e) => e.name).sort())
})

test('imports run down the layers that the document lists, types as well', () => {
  const layerOf = (file: string) => short(file).split('/')[0]!
  const up = files.flatMap((file) => {
    const from = documented.indexOf(layerOf(file))
    if (from < 0) return []
    return inside(file, true)
      .filter((to) => documented.indexOf(layerOf(to)) > from || !short(to).includes('/'))
      .map((to) => `${short(file)} → ${short(to)}`)
  })
  expect(up).toEqual([])
})

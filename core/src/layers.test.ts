import { readdirSync, readFileSync, statSync } from 'node:fs'
import path from 'node:path'

/** Every file of core that is no test, by its path without the ending. */
function filesIn(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const at = path.join(folder, name)
    if (statSync(at).isDirectory()) return filesIn(at)
    return /(?<!\.test)\.ts$/.test(name) ? [at.slice(0, -3)] : []
  })
}
const files = new Set(filesIn(__dirname))

/** What a file imports from core itself; types only where asked. */
function importsOf(file: string, typesToo: boolean): string[] {
  const text = readFileSync(`${file}.ts`, 'utf8')
  const found = text.matchAll(/^(?:import|export)\s+(type\s)?(?:[^'"]*?\sfrom\s+)?'(\.[^']*)'/gm)
  return [...found].flatMap(([, type, spec]) => {
    if (type && !typesToo) return []
    const to = path.resolve(path.dirname(file), spec!)
    return [files.has(to) ? to : path.join(to, 'index')]
  })
}

test('no file of core stands on itself, however long the way round', () => {
  const imports = new Map([...files].map((f) => [f, importsOf(f, false)]))
  const done = new Set<string>()
  const circles: string[] = []
  const visit = (file: string, way: readonly string[]) => {
    if (way.includes(file)) {
      const circle = [...way.slice(way.indexOf(file)), file]
      circles.push(circle.map((f) => path.relative(__dirname, f)).join(' → '))
      return
    }
    if (done.has(file)) return
    for (const next of imports.get(file) ?? []) visit(next, [...way, file])
    done.add(file)
  }
  for (const file of files) visit(file, [])
  expect(circles).toEqual([])
})

test('every import of core leads to a file of core', () => {
  for (const file of files) {
    for (const to of importsOf(file, true)) expect([file, files.has(to)]).toEqual([file, true])
  }
})

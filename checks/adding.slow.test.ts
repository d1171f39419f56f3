import { execFileSync } from 'node:child_process'
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { mkdirSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { applyPatch, parsePatch } from 'diff'
import { root } from './sources'

/** The worked examples of docs/adding.md, in order: each a change of several files. */
const examples = [
  ...readFileSync(path.join(root, 'docs/adding.md'), 'utf8').matchAll(
    /^```diff\n([\s\S]*?)^```$/gm,
  ),
].map(([, diff]) => diff!)

let copy: string

beforeAll(() => {
  copy = mkdtempSync(path.join(tmpdir(), 'yperkine-adding-'))
  const keep = (from: string) => !/node_modules|screenshots/.test(path.relative(root, from))
  for (const part of ['core', 'docs', 'tsconfig.base.json', 'package.json', 'jest.config.js']) {
    cpSync(path.join(root, part), path.join(copy, part), { recursive: true, filter: keep })
  }
  for (const part of ['web', 'server', 'checks']) mkdirSync(path.join(copy, part))
  symlinkSync(path.join(root, 'node_modules'), path.join(copy, 'node_modules'))
})
afterAll(() => rmSync(copy, { recursive: true, force: true }))

/** Follows one example; a change that does not fit any more fails here. */
function follow(example: string) {
  for (const patch of parsePatch(example)) {
    const name = patch.newFileName.replace(/^b\//, '')
    const file = path.join(copy, name)
    const before = patch.oldFileName === '/dev/null' ? '' : readFileSync(file, 'utf8')
    const after = applyPatch(before, patch)
    if (after === false) throw new Error(`docs/adding.md does not fit ${name} any more`)
    writeFileSync(file, after)
  }
}
const run = (command: string, ...args: string[]) =>
  execFileSync('npx', [command, ...args], { cwd: copy, encoding: 'utf8', stdio: 'pipe' })

test('the examples, followed to the letter, pass types and the tests they name', () => {
  expect(examples.length).toBeGreaterThanOrEqual(5)
  examples.forEach(follow)
  run('tsc', '-p', 'core', '--noEmit', '--tsBuildInfoFile', 'core.tsbuildinfo')
  const files = ['statements/kinds', 'functions/functions', 'study/edits/edits', 'scene/scene']
  run('jest', '--selectProjects', 'core', '--testPathPatterns', files.join('|'), '-t', tested)
  writeFileSync(path.join(copy, 'core/src/rise.test.ts'), useOfAll)
  run('jest', '--selectProjects', 'core', '--testPathPatterns', 'src/rise.test')
}, 240_000)

/** What the examples bring, by the names of its tests. */
const tested = 'rise|hypot|shown alone|there are kinds'

/** The line, the function and the mark at work, by numbers worked out by hand. */
const useOfAll = `
import { createEvaluator, createSceneMaker, createStudy, offersFor } from '.'

test('the rise of hypot(3, 4x) over [0, 1] is 5 − 3, under a bracket', () => {
  const created = createStudy('f(x) = hypot(3, 4x) for 0 <= x <= 2')
  if (!created.ok) throw new Error(created.problems[0].message)
  const study = offersFor('rise of f over [0, 1]', created.study, null)[0].edit(created.study)
  const evaluation = createEvaluator()(study)
  const line = study.lines.at(-1)
  expect(evaluation.lines.get(line.id).readouts[0]).toMatchObject({ label: 'rise', value: 2 })
  const heights = { [study.lanes[0].id]: 300 }
  const scene = createSceneMaker()(evaluation, { width: 800, heights })
  const bracket = scene.lanes[0].items.find((i) => i.key === line.id + '.before')
  expect(bracket.d).toMatch(/^M[\\d.]+ [\\d.]+V[\\d.]+H[\\d.]+V[\\d.]+$/)
})
`

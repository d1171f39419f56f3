import { readFileSync } from 'node:fs'
import path from 'node:path'
import * as core from '../core/src'
import { root } from './sources'

const page = readFileSync(path.join(root, 'docs/scripting.md'), 'utf8')
const names = [...page.matchAll(/^\| ([^|]*) \|/gm)].flatMap(([, cell]) =>
  [...cell!.matchAll(/`(\w+)\(/g)].map(([, name]) => name!),
)

test('every name that programs may rely on is there', () => {
  expect(names.length).toBeGreaterThan(20)
  for (const name of names) {
    expect([name, typeof (core as Record<string, unknown>)[name]]).toEqual([name, 'function'])
  }
})

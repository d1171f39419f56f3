import { compile, parseFormula, type RealFunction } from '..'

export function read(text: string): RealFunction {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problems[0]!.message}`)
  return compile(parsed.tree)
}

export const xs = (all: readonly { x: number }[]) => all.map(({ x }) => x)

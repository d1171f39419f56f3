import { type CurveMaker, isCurveMaker, kindOf, surfaceOf } from '../statements'
import type { CurveLookup, LineResult, SurfaceLookup } from '../statements/contract'
import type { Study } from '../study/schema'

/** The step by which a slider moves: its own, or the one of its stops. */
function stepOf(study: Study, name: string): number | undefined {
  const slider = study.sliders.find((s) => s.name === name)
  if (!slider) return undefined
  const { manner, stops } = slider.motion
  return manner === 'in equal steps' ? (slider.to - slider.from) / stops : slider.step
}

/** The line whose table shows a curve or a derivative of it: the wanted one, else the first. */
function tableLine(study: Study, curve: string, order: number, wanted?: string) {
  const tables = study.lines.filter((l) => {
    const about = kindOf(l).tabulates?.(l)
    return about?.curve === curve && about.order === order
  })
  return (tables.find((l) => l.id === wanted) ?? tables[0])?.id
}

/**
 * What a key stands for in a study: what cells read and are held against. Keys are one word, or
 * a word and a name such as `slider:a`, `curve:f`, `result:line3`, `table:f:1:line3`.
 */
export function keysOf(
  study: Study,
  work: {
    curve: (name: string) => CurveLookup
    surface: (name: string) => SurfaceLookup
    result: (line: string) => LineResult | null
    never: (condition: string) => string | null
  },
) {
  const curveLines = new Map(
    study.lines.flatMap((l): [string, CurveMaker][] => (isCurveMaker(l) ? [[l.name, l]] : [])),
  )
  const sliderValues = new Map(study.sliders.map((s) => [s.name, s.value]))
  const names = [...sliderValues.keys()].join()
  const curveNames = [...curveLines.keys()].join()
  const surfaceLines = new Map(
    study.lines.flatMap((l) => {
      const made = surfaceOf(l)
      return made ? [[made.name, l] as const] : []
    }),
  )
  const meanings: Record<string, (of: string, ...more: string[]) => unknown> = {
    letter: () => study.variable.letter,
    variable: () => study.variable,
    decimals: () => study.decimals,
    notation: () => study.display.notation,
    names: () => names,
    curveNames: () => curveNames,
    slider: (of) => sliderValues.get(of),
    from: (of) => study.sliders.find((s) => s.name === of)?.from,
    to: (of) => study.sliders.find((s) => s.name === of)?.to,
    parts: () => study.parts,
    never: (...of) => work.never(of.join(':')),
    step: (of) => stepOf(study, of),
    source: (of) => curveLines.get(of),
    result: work.result,
    table: (of, order, wanted) => tableLine(study, of, Number(order), wanted),
    curve: work.curve,
    surfaceSource: (of) => surfaceLines.get(of),
    surface: work.surface,
  }
  const current = (key: string): unknown => {
    const [kind, of, ...more] = key.split(':') as [string, string, ...string[]]
    return meanings[kind]!(of, ...more)
  }
  return { current, curveNames: [...curveLines.keys()], sliderValues }
}

import type { RealFunction } from '../evaluate/compile'
import { goldenWalk } from './golden'
import { newtonWalk } from './newton'
import { type PopulationFound, type PopulationOptions, populationWalk } from './population'
import { simplexWalk } from './simplex'
import { finishWalk, type Found, type Walk } from './walk'

export const searchMethods = ['simplex', 'golden', 'newton'] as const
export type SearchMethod = (typeof searchMethods)[number]

export type MinimizeOptions =
  | { method?: 'simplex'; start: number; step?: number }
  | { method: 'golden'; from: number; to: number }
  | { method: 'newton'; start: number }

/** A local search as steps: each probe as it is made, so that it can be watched and stopped. */
export function minimizeInSteps(f: RealFunction, options: MinimizeOptions): Walk {
  switch (options.method) {
    case 'golden':
      return goldenWalk(f, options.from, options.to)
    case 'newton':
      return newtonWalk(f, options.start)
    case 'simplex':
    case undefined:
      return simplexWalk(f, options.start, options.step)
    default:
      throw new RangeError(`unknown search: ${String((options as { method: unknown }).method)}`)
  }
}

/**
 * A low point of f by one local search, with every look in order. It finds one valley: the one
 * downhill from where it starts.
 */
export const minimize = (f: RealFunction, options: MinimizeOptions): Found =>
  finishWalk(minimizeInSteps(f, options))

/** The lowest valley on a span by a population; see populationWalk. */
export function minimizeGlobally(f: RealFunction, options: PopulationOptions): PopulationFound {
  const walk = populationWalk(f, options)
  for (;;) {
    const step = walk.next()
    if (step.done) return step.value
  }
}

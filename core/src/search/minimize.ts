import type { RealFunction } from '../evaluate/compile'
import { goldenWalk } from './golden'
import { gradientWalk } from './gradient'
import { newtonWalk } from './newton'
import { type PopulationOptions, populationWalk } from './population'
import { simplexWalk } from './simplex'
import { finishWalk, type Found, type Limits, type Walk } from './walk'

export const searchMethods = ['simplex', 'golden', 'newton', 'gradient', 'population'] as const
export type SearchMethod = (typeof searchMethods)[number]

export type MinimizeOptions = Limits &
  (
    | { method?: 'simplex'; start: number; step?: number }
    | { method: 'golden'; from: number; to: number }
    | { method: 'newton'; start: number }
    | { method: 'gradient'; start: number; rate?: number }
    | ({ method: 'population' } & PopulationOptions)
  )

/** A search as steps: each probe as it is made, so that it can be watched and stopped. */
export function minimizeInSteps(f: RealFunction, options: MinimizeOptions): Walk {
  switch (options.method) {
    case 'golden':
      return goldenWalk(f, options.from, options.to, options)
    case 'newton':
      return newtonWalk(f, options.start, options)
    case 'gradient':
      return gradientWalk(f, options.start, options.rate, options)
    case 'population':
      return populationWalk(f, options)
    case 'simplex':
    case undefined:
      return simplexWalk(f, options.start, options.step, options)
    default:
      throw new RangeError(`unknown search: ${String((options as { method: unknown }).method)}`)
  }
}

/**
 * A low point of f by one search, with every look in order. All but a population find one valley: the
 * one downhill from where they start.
 */
export const minimize = (f: RealFunction, options: MinimizeOptions): Found =>
  finishWalk(minimizeInSteps(f, options))

/** The lowest valley on a span by a population; see populationWalk. */
export const minimizeGlobally = (f: RealFunction, options: PopulationOptions): Found =>
  finishWalk(populationWalk(f, options))

import type { Examination } from '../../features/examination'
import type { SearchMethod } from '../../search/minimize'
import type { Found } from '../../search/walk'
import { formatNumber } from '../../vocabulary/numbers'
import { lazyTable, type LineContext, type ResultTable } from '../contract'
import { curveText } from '../shared/slots'
import { methodWords, type SearchLine } from './line'

/** One search of a line, and what it has come to. */
export interface Run {
  method: SearchMethod
  found: Found
}

/** The best value after each look. */
export function bestSoFar(log: Found['log'], goal: SearchLine['goal']): number[] {
  let best = NaN
  return log.map(({ value }) => {
    const isBetter = goal === 'low' ? value < best : value > best
    if (Number.isNaN(best) || isBetter) best = value
    return best
  })
}

/** Every place that was looked at, in its order. */
export function probesTable(
  { method, found }: Run,
  several: boolean,
  line: SearchLine,
  context: LineContext,
): ResultTable {
  const { letter } = context.variable
  const { decimals } = context
  const digits = Math.max(6, decimals)
  return lazyTable(
    {
      name: 'Probes',
      ...(several ? { of: methodWords[method] } : {}),
      columns: ['probe', letter, `${curveText(line)}(${letter})`, 'best so far', 'taken'],
      count: found.evaluations,
      open: false,
    },
    () => {
      const best = bestSoFar(found.log, line.goal)
      return found.log.map(({ x, value, accepted }, i) => ({
        cells: [
          String(i + 1),
          formatNumber(x, digits),
          Number.isFinite(value) ? formatNumber(value, digits) : '—',
          Number.isFinite(best[i]!) ? formatNumber(best[i]!, digits) : '—',
          accepted ? 'accepted' : 'refused',
        ],
        values: [i + 1, x, Number.isFinite(value) ? value : null, best[i]!, null],
        x,
      }))
    },
  )
}

/** What each of several searches has come to, and what it cost. */
export function searchesTable(
  runs: readonly Run[],
  examination: Examination | null,
  line: SearchLine,
  context: LineContext,
): ResultTable {
  const { decimals, variable } = context
  const best = runs.reduce((top, { found }) => {
    const isBetter = line.goal === 'low' ? found.value < top : found.value > top
    return isBetter || Number.isNaN(top) ? found.value : top
  }, NaN)
  const proven = line.goal === 'low' ? examination?.lowest : examination?.highest
  const goal = proven?.value ?? best
  return lazyTable(
    {
      name: 'Searches',
      columns: ['by', variable.letter, 'value', 'above the best', 'evaluations', 'iterations'].map(
        (head) => (head === 'above the best' && line.goal === 'high' ? 'below the best' : head),
      ),
      count: runs.length,
      open: true,
    },
    () =>
      runs.map(({ method, found }) => {
        const by = Math.abs(found.value - goal)
        return {
          cells: [
            methodWords[method],
            formatNumber(found.x, decimals),
            formatNumber(found.value, decimals),
            Number.isFinite(by) ? formatNumber(by, decimals) : '—',
            String(found.evaluations),
            String(found.iterations),
          ],
          values: [null, found.x, found.value, by, found.evaluations, found.iterations],
          x: found.x,
        }
      }),
  )
}

import { z } from 'zod'
import { decimalOfNumber } from '../../arithmetic/rational'
import {
  exactly,
  name as nameTree,
  power,
  product,
  sum,
  type Tree,
  whole,
} from '../../formula/tree'
import { remainderBound } from '../../surfaces/local'
import { compileSurface } from '../../surfaces/surface'
import { commonMembers, nameSchema, placeTextSchema } from '../../vocabulary/members'
import { showNumber } from '../../vocabulary/numbers'
import { emptyResult, failed, type StatementKind } from '../contract'
import { numberSlot } from '../shared/slots'
import { tellTree } from '../shared/toldNumbers'
import { pointFor, pointIn, surfaceMeant } from './said'
import { lookAtPoint, noSlope, ofSurface, pointPhrases, treeAt } from './shared'
import { boundSaid, placeSaidAs, runSaid, termsSaid } from './words'

/** Taylor polynomial of the surface at (a, b), order 2. */
export const polynomialLineSchema = z.strictObject({
  kind: z.literal('polynomial'),
  ...commonMembers,
  of: nameSchema,
  x: placeTextSchema,
  y: placeTextSchema,
  order: z.union([z.literal(1), z.literal(2)]),
  /** How far away in x and in y its error is told. */
  near: placeTextSchema,
})
export type PolynomialLine = z.infer<typeof polynomialLineSchema>

/** How often by each variable, and what is divided by, for each term up to order 2. */
const terms = [
  [0, 0, 1],
  [1, 0, 1],
  [0, 1, 1],
  [2, 0, 2],
  [1, 1, 1],
  [0, 2, 2],
] as const

export const polynomialKind: StatementKind<PolynomialLine> = {
  kind: 'polynomial',
  schema: polynomialLineSchema,
  topic: 'surfaces',
  said: ['taylor polynomial of the surface'],
  claims: /^taylor\s+polynomial\s+of\s+the\s+surface\b/i,
  uses: {
    surfaces: ['of'],
    numbers: ['x', 'y', 'near'],
    point: { place: 'x', height: 'y' },
  },
  drawn: { pointWidth: 12 },

  sentence: (line, context) => [
    { text: 'Taylor polynomial' },
    ...(line.of === 'z' ? [{ text: ' of the surface' }] : ofSurface(line.of, 'of')),
    { text: ' at ' },
    ...pointPhrases(line, context),
    { text: ', order ' },
    {
      ...{ slot: 'choice', field: 'order', text: String(line.order), source: String(line.order) },
      latex: String(line.order),
      choices: ['1', '2'].map((value) => ({ value, text: value })),
    },
    { text: ', error within ' },
    numberSlot('near', line.near, context),
  ],

  choose: (_line, field, text) =>
    field === 'order' ? { change: { order: text === '1' ? 1 : 2 } } : null,

  evaluate(line, context) {
    const found = lookAtPoint(line, context)
    if (!found.ok) return failed(found.problem)
    const { at } = found
    const { f, letters, name, within } = at.surface
    const near = context.number(line.near)
    if (!near.ok) return failed(near.problem)
    if (!(near.value > 0)) {
      return failed({ message: 'the error is told within a distance above 0', fix: 'write 0.5' })
    }
    const used = terms.filter(([i, j]) => i + j <= line.order)
    const known = used.map(([i, j, by]) => f.partial(i, j).value(at.x.x, at.y.x) / by)
    if (!known.every(Number.isFinite)) return failed(noSlope(at, context.decimals))
    const isRough = at.x.rough || at.y.rough
    const told = used.map(([i, j, by], k) => {
      const exact = product(exactly({ n: 1n, d: BigInt(by) }), treeAt(f.partial(i, j), at))
      return tellTree(isRough ? null : exact, known[k]!, context, at.isTyped).text
    })
    const [x0, y0] = [at.x, at.y].map(
      (place) => tellTree(place.tree, place.x, context, at.isTyped).text,
    ) as [string, string]
    const [dx, dy] = [runSaid(letters[0], x0), runSaid(letters[1], y0)]
    const raised = (run: string, n: number) => (n === 0 ? '' : n === 1 ? run : `${run}²`)
    const text = termsSaid(
      told[0]!,
      used.slice(1).map(([i, j], k) => [told[k + 1]!, `${raised(dx, i)}${raised(dy, j)}`] as const),
    )
    const run = (letter: string, from: number): Tree =>
      sum(nameTree(letter), exactly(decimalOfNumber(-from)))
    const tree = sum(
      ...used.map(([i, j], k) =>
        product(
          exactly(decimalOfNumber(known[k]!)),
          power(run(letters[0], at.x.x), whole(i)),
          power(run(letters[1], at.y.x), whole(j)),
        ),
      ),
    )
    const bound = remainderBound(f, at.x.x, at.y.x, near.value, line.order)
    const where = `Within ${showNumber(near.value, 12)} of ${placeSaidAs([at.x.x, at.y.x], context.decimals)} in ${letters[0]} and in ${letters[1]}`
    const next = line.order === 1 ? 'second' : 'third'
    const point = [at.x.x, at.y.x, at.z] as const
    return {
      ...emptyResult,
      readouts: [{ id: 'formula', label: 'formula', text: `${name} ≈ ${text}` }],
      notes: [
        ...at.notes,
        bound === null
          ? `${where} the ${next} partial derivatives are not known everywhere: no bound of the error is proven.`
          : `${where} it is off by at most ${boundSaid(bound)}: proven by bounds of the ${next} partial derivatives.`,
      ],
      space: [
        {
          ...{ kind: 'sheet', id: 'polynomial', role: 'polynomial', within },
          of: compileSurface(tree, letters),
        },
        ...(at.isDrawn
          ? [{ kind: 'spot' as const, id: 'point', at: point, label: '', held: true }]
          : []),
      ],
    }
  },

  offers(request) {
    const words = /^taylor\s+polynomial\s+of\s+the\s+surface\b(.*)$/i.exec(request.text)
    const surface = words && surfaceMeant(`surface${words[1]!}`, request)
    if (!surface) return []
    const said = words[1]!
    const order = /\border\s+([12])\b/.exec(said)?.[1] === '1' ? 1 : 2
    const near = /\bwithin\s+(\S+)/.exec(said)?.[1] ?? '0.5'
    const { x, y, newSliders } = pointFor(pointIn(said), surface, request)
    return [
      { line: { kind: 'polynomial', id: '', of: surface.name, x, y, order, near }, newSliders },
    ]
  },
}

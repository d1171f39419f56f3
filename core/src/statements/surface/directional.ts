import { z } from 'zod'
import { commonMembers, nameSchema, placeTextSchema } from '../../vocabulary/members'
import { call, power, product, quotient, sum, whole } from '../../formula/tree'
import { showNumber } from '../../vocabulary/numbers'
import { emptyResult, failed, type StatementKind } from '../contract'
import { numberSlot } from '../shared/slots'
import { tellTree, toldReadout } from '../shared/toldNumbers'
import { pointFor, pointIn, surfaceMeant } from './said'
import { lookAtPoint, noSlope, ofSurface, pointPhrases, treeAt } from './shared'

/** Directional derivative at (a, b) towards (u, v). */
export const directionalLineSchema = z.strictObject({
  kind: z.literal('directional'),
  ...commonMembers,
  of: nameSchema,
  x: placeTextSchema,
  y: placeTextSchema,
  /** The direction, of any length but 0. */
  u: placeTextSchema,
  v: placeTextSchema,
})
export type DirectionalLine = z.infer<typeof directionalLineSchema>

export const directionalKind: StatementKind<DirectionalLine> = {
  kind: 'directional',
  schema: directionalLineSchema,
  topic: 'surfaces',
  said: ['directional derivative'],
  claims: /^directional\s+derivative\b/i,
  uses: {
    surfaces: ['of'],
    numbers: ['x', 'y', 'u', 'v'],
    point: { place: 'x', height: 'y' },
  },
  drawn: { pointWidth: 12 },

  sentence: (line, context) => [
    { text: 'Directional derivative' },
    ...ofSurface(line.of, 'of'),
    { text: ' at ' },
    ...pointPhrases(line, context),
    { text: ' along (' },
    numberSlot('u', line.u, context),
    { text: ', ' },
    numberSlot('v', line.v, context),
    { text: ')' },
  ],

  evaluate(line, context) {
    const found = lookAtPoint(line, context)
    if (!found.ok) return failed(found.problem)
    const { at } = found
    const [u, v] = [context.number(line.u), context.number(line.v)]
    if (!u.ok) return failed(u.problem)
    if (!v.ok) return failed(v.problem)
    const length = Math.hypot(u.value, v.value)
    if (length === 0) {
      const message = 'the direction (0, 0) points nowhere'
      return failed({ message, fix: 'give a direction such as (1, 2)' })
    }
    const { f, name, within } = at.surface
    const [fx, fy] = [f.partial(1, 0), f.partial(0, 1)]
    const [p, q] = [fx.value(at.x.x, at.y.x), fy.value(at.x.x, at.y.x)]
    if (!Number.isFinite(p) || !Number.isFinite(q)) return failed(noSlope(at, context.decimals))
    const value = (p * u.value + q * v.value) / length
    const size = call('sqrt', sum(power(u.tree, whole(2)), power(v.tree, whole(2))))
    const tree = quotient(
      sum(product(treeAt(fx, at), u.tree), product(treeAt(fy, at), v.tree)),
      size,
    )
    const isRough = at.x.rough || at.y.rough || u.rough || v.rough
    const isTyped = at.isTyped && u.exact !== null && v.exact !== null
    const told = tellTree(isRough ? null : tree, value, context, isTyped)
    const reach = Math.min(within.x.hi - within.x.lo, within.y.hi - within.y.lo) / 6
    const [dx, dy] = [(u.value / length) * reach, (v.value / length) * reach]
    const from = [at.x.x, at.y.x, at.z] as const
    const most = Math.hypot(p, q)
    return {
      ...emptyResult,
      readouts: [
        toldReadout('slope', told, ''),
        {
          ...{ id: 'steepest', label: 'steepest slope', value: most },
          text: showNumber(most, context.decimals),
        },
      ],
      notes: [
        ...at.notes,
        `The gradient times the direction of length 1: no direction gives more than the length of the gradient of ${name}.`,
      ],
      space: !at.isDrawn
        ? []
        : [
            {
              ...{ kind: 'arrow', id: 'direction', role: 'direction', label: told.text, from },
              to: [from[0] + dx, from[1] + dy, at.z + value * reach],
            },
            { kind: 'spot', id: 'point', at: from, label: '', held: true },
          ],
    }
  },

  offers(request) {
    const words = /^directional\s+derivative\b(.*)$/i.exec(request.text)
    const surface = words && surfaceMeant(words[1]!, request)
    if (!surface) return []
    const [before = '', behind] = words[1]!.split(
      /\b(?:along|towards?|in\s+the\s+direction(?:\s+of)?)\b/i,
    )
    const way = behind === undefined ? null : pointIn(behind)
    if (behind !== undefined && !way) return []
    const { x, y, newSliders } = pointFor(pointIn(before), surface, request)
    const direction = { u: way?.x ?? '1', v: way?.y ?? '1' }
    return [
      { line: { kind: 'directional', id: '', of: surface.name, x, y, ...direction }, newSliders },
    ]
  },
}

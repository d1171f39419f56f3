import { antiderivative } from '../../algebra/antiderivative'
import { withValues } from '../../evaluate/withValues'
import { toPlain } from '../../language/print'
import { unitOfArea, unitOfDerivative } from '../../vocabulary/units'
import { toldOver } from '../shared/spanFacts'
import { toldReadout } from '../shared/toldNumbers'
import { type Case, lane, type Told } from './case'
import { continuous, obstaclesOf } from './facts'
import { continuousWords, openSpan, place } from './words'

export function fundamental(one: Case): Told {
  const { wording, facts, line, f } = one
  const { name, letter } = wording
  const obstacles = obstaclesOf(f, one.ends, facts.examination!)
  const whole = continuous(obstacles)
  const { exact } = facts
  const unit = unitOfDerivative(one.curve.unit, one.context.variable.unit, line.order)
  const [a, b] = wording.ends
  const area = Number.isFinite(exact.value)
    ? `the area from ${a} to ${b} is ${areaWords(one)}`
    : `there is no area from ${a} to ${b}`
  const sentences = [continuousWords(whole, wording)]
  if (whole.holds) {
    sentences.push(
      `So A(${letter}), the area under ${name} from ${a} to ${letter}, has A′(${letter}) = ${name}(${letter}) on ${openSpan(wording)}.`,
      `And ${area}: it is F(${b}) − F(${a}) for any F with F′ = ${name}${antiderivativeWords(one)}.`,
    )
  } else {
    const bad = obstacles.obstacles.find(({ x }) => x === whole.at?.x)
    const why: Partial<Record<string, string>> = {
      jump: `A has a kink at ${bad ? place(bad.x, wording) : ''} and no slope there`,
      displaced: `at ${bad ? place(bad.x, wording) : ''} the slope of A is what ${name} tends to, not its value`,
      hole: `at ${bad ? place(bad.x, wording) : ''} the slope of A is what ${name} tends to, where ${name} has no value`,
    }
    const says =
      whole.holds === null
        ? 'What the theorem says is not settled here'
        : 'The theorem says nothing here'
    const told = bad ? why[bad.does] : undefined
    sentences.push(`${says}${told ? `: ${told}` : ''}. ${area[0]!.toUpperCase()}${area.slice(1)}.`)
  }
  const { from, to } = facts
  return {
    readouts: Number.isFinite(exact.value)
      ? [
          toldReadout(
            'area',
            toldOver('area', line, facts, one.context),
            unitOfArea(unit, one.context.variable.unit),
          ),
        ]
      : [],
    marks: [
      {
        kind: 'shade',
        id: 'area',
        layer: 'insides',
        lane: lane(one),
        from,
        to,
        of: { curve: line.curve, order: line.order },
      },
    ],
    sentences,
    open: whole.holds === null,
  }
}

/** The area in exact form where there is one, else rounded. */
function areaWords({ line, facts, context }: Case): string {
  const told = toldOver('area', line, facts, context)
  if (told.exact?.proven) return told.exact.text
  return told.fraction || told.text.startsWith('≈') ? told.text : `≈ ${told.text}`
}

/** ", such as x³/3": the function itself for a derivative, or one that a rule finds. */
function antiderivativeWords({ line, wording, f }: Case): string {
  if (line.order > 0) return `, such as ${line.curve}`
  const found = antiderivative(withValues(f.tree, f.parameters), f.variable)
  const text = found && toPlain(found)
  return text && text.length <= longestFormula ? `, such as F(${wording.letter}) = ${text}` : ''
}
const longestFormula = 60

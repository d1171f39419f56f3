import { addSlider, enterSlider, plainSlider } from '../study/edits/sliders'
import { curveMakers } from '../study/edits/names'
import type { Study } from '../study/schema'
import { type Slider, sliderNameSchema } from '../vocabulary/members'
import { numberToFormula } from '../vocabulary/numbers'
import { readNumber } from '../vocabulary/values'
import type { Offer } from './offer'

/** "let a = 3", "slider u from −3 to 3 by 0.1", "parameter k between 0 and 1 in steps of 0.05". */
const asked =
  /^(?:(let\s|(?=(?:\p{L}(?:[₀-₉]{1,3}|_?\d{1,3}|_\p{L})?|[A-Za-z]{2,20})\s*=))|(?:(?:add|make|put|give me|new)\s+)?(?:an?\s+|the\s+)?(?:slider|parameter)(?:\s+(?:for|called|named))?\s)\s*(\p{L}(?:[₀-₉]{1,3}|_?\d{1,3}|_\p{L})?|[A-Za-z]{2,20})(?:\s*=\s*|\s+(?:is|be|at)\s+|(?=\s|$))(.*)$/iu
const steps = /[\s,;]+(?:by|step|steps of|in steps of|with step|with steps of)\s+(\S+)$/i
const bounds =
  /(?:^|[\s,;]+)(?:from\s+(\S.*?)\s+to\s+(\S.*)|between\s+(\S.*?)\s+and\s+(\S.*)|(?:in|on|∈)\s*\[\s*([^,;]+?)\s*[,;]\s*([^\]]+?)\s*\])$/iu

type Asked = { offer: Offer } | { problem: string } | null

/** Where "let f = 3" is said, a level curve is as likely: these letters are read as curves first. */
const curveLetters = /^[yfghFGH]$/

/** Whether a request for a slider may as well be one for a curve, which is then to be offered first. */
export const isCurveFirst = (text: string): boolean => {
  const found = asked.exec(text.trim())
  return found?.[1] !== undefined && curveLetters.test(found[2]!)
}

const lowered = (name: string) =>
  name.replace(/_?(\d{1,3})$/, (_, digits: string) =>
    [...digits].map((d) => '₀₁₂₃₄₅₆₇₈₉'[Number(d)]).join(''),
  )

/**
 * The slider that a text asks for by its name, or why it cannot be; null where it asks for none. A
 * slider that exists is set instead. Values and bounds are numbers or what has one (π/2); what is not
 * said is as for any other slider, widened to hold the value.
 */
export function sliderAsked(typed: string, study: Study): Asked {
  const found = asked.exec(typed.trim().replace(/[.?!]+$/, ''))
  if (!found) return null
  const name = lowered(found[2]!)
  // "x = 2" is a place.
  if (found[1] === '' && name === study.variable.letter) return null
  const step = steps.exec(found[3]!)
  const beforeStep = step ? found[3]!.slice(0, step.index) : found[3]!
  const span = bounds.exec(beforeStep)
  const value = (span ? beforeStep.slice(0, span.index) : beforeStep).trim()
  // "let a" alone asks for nothing yet, and the value of "let k = 2x" is no number.
  if (found[1] !== undefined && (value === '' || !readNumber(value).ok)) return null
  const parts = {
    value: value === '' ? undefined : value,
    from: span?.[1] ?? span?.[3] ?? span?.[5],
    to: span?.[2] ?? span?.[4] ?? span?.[6],
    step: step?.[1],
  }
  const numbers: Parts<number> = {}
  for (const [part, text] of Object.entries(parts)) {
    if (text === undefined) continue
    const read = readNumber(text)
    if (!read.ok) return { problem: `“${text}” is no number for the slider ${name}.` }
    numbers[part as keyof typeof parts] = read.value
  }
  return sliderWith(name, numbers, parts, study)
}

type Parts<T> = Partial<Record<'value' | 'from' | 'to' | 'step', T | undefined>>

function sliderWith(
  name: string,
  { value, from, to, step }: Parts<number>,
  typed: Parts<string>,
  study: Study,
): Asked {
  const allowed = sliderNameSchema.safeParse(name)
  if (!allowed.success)
    return {
      problem: `${name} means something else in a formula: a slider takes another letter or word.`,
    }
  if (name === study.variable.letter) {
    return { problem: `${name} is the variable: a slider takes another letter.` }
  }
  if (curveMakers(study).some((curve) => curve.name === name)) {
    return { problem: `There is a curve ${name} already: a slider takes another letter.` }
  }
  if (from !== undefined && to !== undefined && from >= to) {
    return { problem: 'A slider goes from a smaller number to a larger one.' }
  }
  if (step !== undefined && step <= 0) return { problem: 'A slider’s step is larger than 0.' }
  const existing = study.sliders.find((slider) => slider.name === name)
  const usual = existing ?? plainSlider(name)
  const low = Math.min(from ?? usual.from, from === undefined ? (value ?? 0) : Infinity)
  const high = Math.max(to ?? usual.to, to === undefined ? (value ?? 0) : -Infinity)
  const within = Math.min(high, Math.max(low, value ?? usual.value))
  if (value !== undefined && within !== value) {
    return { problem: `${typed.value} lies outside the slider’s bounds.` }
  }
  const slider: Slider = {
    ...usual,
    value: within,
    from: low,
    to: high,
    step: step ?? usual.step,
  }
  if (existing) {
    const others = from !== undefined || step !== undefined
    return {
      offer: {
        sets: true,
        sentence: others
          ? `Set ${told(slider, typed)}`
          : `Set ${name} to ${withMinus(typed.value ?? numberToFormula(within))}`,
        edit: (now) =>
          others
            ? { ...now, sliders: now.sliders.map((s) => (s.name === name ? slider : s)) }
            : enterSlider(name, within)(now),
      },
    }
  }
  return { offer: { sentence: `Slider ${told(slider, typed)}`, edit: addSlider(slider) } }
}

const withMinus = (text: string) => text.replace(/-/g, '−')
/** A slider in words, its numbers as they were typed: π/2 rather than sixteen digits. */
function told(slider: Slider, typed: Parts<string>): string {
  const part = (name: keyof Parts<string>) =>
    withMinus(typed[name] ?? numberToFormula(slider[name]))
  return `${slider.name} = ${part('value')}, from ${part('from')} to ${part('to')} by ${part('step')}`
}

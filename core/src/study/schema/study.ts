import { z } from 'zod'
import { allNames, statementSchema } from '../../statements'
import { mostDecimals } from '../../vocabulary/numbers'
import {
  answersSchema,
  displaySchema,
  mostParts,
  mostSteps,
  noAnswers,
  partSchema,
  sliderSchema,
  spaceSchema,
  stepSchema,
  usualDisplay,
  usualSpace,
  variableSchema,
  viewSchema,
  windowSchema,
} from '../../vocabulary/members'
import { isStorable } from '../../vocabulary/storable'
import { presentFormat } from './format'

/** One saved document of the present format, which is docs/study-format.md. */
export const presentSchema = z
  .strictObject({
    format: z.literal(presentFormat),
    title: z.string().trim().min(1, 'a study needs a title').max(200),
    /** One sentence on what it is about, for the list of studies. */
    about: z.string().trim().max(300),
    variable: variableSchema,
    decimals: z.int().min(0).max(mostDecimals),
    sliders: z.array(sliderSchema).max(100),
    lines: z.array(statementSchema).max(500),
    /** Headings, in the order in which they stand; the lines of one follow each other. */
    parts: z.array(partSchema).max(mostParts).default([]),
    lanes: z.array(viewSchema).max(20),
    /** The visible stretch of the axis; null while it follows the span of the curves. */
    frame: windowSchema.nullable(),
    display: displaySchema.default(usualDisplay),
    /** How its surfaces are looked at. */
    space: spaceSchema.default(usualSpace),
    /** States of a lesson, in their order. */
    steps: z.array(stepSchema).max(mostSteps).default([]),
    /** What learners have drawn and marked on covered lanes. */
    answers: answersSchema.default(noAnswers),
  })
  .superRefine((study, context) => {
    const names = [
      study.variable.letter,
      ...study.sliders.map((s) => s.name),
      ...allNames(study.lines),
    ]
    const ids = study.lines.map((l) => l.id)
    const twice = (all: string[]) => {
      const seen = new Set<string>()
      return all.find((one) => seen.has(one) || !seen.add(one))
    }
    const name = twice(names)
    if (!isStorable(study)) {
      context.addIssue({
        code: 'custom',
        message: 'a text holds characters that are no characters',
      })
    }
    if (name) context.addIssue({ code: 'custom', message: `two things are called ${name}` })
    const partIds = study.parts.map((p) => p.id)
    if (twice(partIds) || twice(study.parts.map((p) => p.letter)))
      context.addIssue({ code: 'custom', message: 'two parts are called alike', path: ['parts'] })
    study.lines.forEach(({ part }, i) => {
      if (part === undefined) return
      const path = ['lines', i, 'part']
      if (!partIds.includes(part))
        context.addIssue({ code: 'custom', message: 'there is no such part', path })
      const isApart = study.lines[i - 1]?.part !== part
      if (isApart && study.lines.slice(0, i).some((l) => l.part === part))
        context.addIssue({ code: 'custom', message: 'the lines of a part stand apart', path })
    })
    if (twice(study.steps.map((s) => s.id)))
      context.addIssue({ code: 'custom', message: 'two steps share an id', path: ['steps'] })
    if (twice(ids))
      context.addIssue({ code: 'custom', message: 'two lines share an id', path: ['lines'] })
  })
export type Study = z.infer<typeof presentSchema>
/** A study as it may be written: what is usual can be left out. */
export type StudyInput = z.input<typeof presentSchema>

import { studyJsonSchema, writeStudyFile } from '@yperkine/core'
import Ajv2020 from 'ajv/dist/2020'
import { demoStudies } from './studies'

// Read by another program: Ajv, which knows nothing of the project.
const ajv = new Ajv2020({ strict: false, allErrors: true })
const validate = ajv.compile(studyJsonSchema())

test.each(demoStudies.map(({ study }) => [study.title, study] as const))(
  '“%s” fits the published schema as a file',
  (_title, study) => {
    validate(JSON.parse(writeStudyFile(study)))
    expect(validate.errors).toBeNull()
  },
)
test.each([
  ['a member that nobody knows', { colour: 1 }],
  ['a number for a title', { title: 3 }],
  ['a line of no kind', { lines: [{ id: 'line1', kind: 'nothing' }] }],
  ['a step without a state', { steps: [{ id: 'step1', title: 'One' }] }],
])('%s does not', (_what, change) => {
  const file = JSON.parse(writeStudyFile(demoStudies[0]!.study)) as object
  expect(validate({ ...file, ...change })).toBe(false)
})

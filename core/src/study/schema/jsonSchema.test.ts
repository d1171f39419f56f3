import { readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { keepAsStep, startStudy, studyJsonSchema, writeStudyFile } from '../..'

const file = path.join(__dirname, '../../../../docs/study.schema.json')

test('the schema in the docs is that of the program', () => {
  const written = `${JSON.stringify(studyJsonSchema(), null, 2)}\n`
  // Written anew by: UPDATE_SCHEMA=1 npx jest --selectProjects core -- jsonSchema
  if (process.env.UPDATE_SCHEMA) writeFileSync(file, written)
  expect(JSON.parse(readFileSync(file, 'utf8'))).toEqual(JSON.parse(written))
})

test('it names the version of JSON Schema, what a study must have, and refuses what it does not know', () => {
  const schema = studyJsonSchema()
  expect(schema.$schema).toBe('https://json-schema.org/draft/2020-12/schema')
  expect(schema.additionalProperties).toBe(false)
  const study = JSON.parse(writeStudyFile(keepAsStep('One')(startStudy('f(x) = x^2')))) as object
  expect(Object.keys(schema.properties as object)).toEqual(
    expect.arrayContaining(Object.keys(study)),
  )
  expect(schema.required).toEqual(expect.arrayContaining(['format', 'title', 'lines', 'lanes']))
})

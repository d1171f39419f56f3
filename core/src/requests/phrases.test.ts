import { readFileSync } from 'node:fs'
import path from 'node:path'
import { say, startStudy, type Study } from '..'

const and = (study: Study, words: string): Study => {
  const said = say(study, words)
  if ('problem' in said) throw new Error(said.problem)
  return said.study
}
const cubic = startStudy('f(x) = x^3 - 3x for -2 <= x <= 4')
const studies: Readonly<Record<string, Study>> = {
  f: cubic,
  'f and k': and(cubic, 'let k(x) = x/2'),
  s: startStudy('s(t) = t^3 - 6t^2 + 9t for 0 <= t <= 5'),
}

interface Row {
  study: string
  phrase: string
  becomes: string
}

function rowsOf(table: string): Row[] {
  let [study, becomes] = ['', '']
  return table.split('\n').flatMap((line) => {
    if (line.startsWith('# ')) study = line.slice(2)
    else if (line.startsWith('  ')) return [{ study, phrase: line.trim(), becomes }]
    else if (line !== '') becomes = line
    return []
  })
}

/** What came of a phrase, as the table tells it. */
function told(study: Study, phrase: string): string {
  const said = say(study, phrase)
  if (!('problem' in said)) return said.sentence
  if (said.choices.length === 0) return '? nothing'
  return said.problem.includes('could mean') ? '? could mean 2 things' : `? ${said.problem}`
}

/*
 * What teachers, textbooks and students say, and what it must become, from memory of many exercise
 * pages. A section begins with # and the curves of its study; a sentence stands before the phrases
 * that ask for it, which are indented. Behind "?" stands why nothing is added.
 */
const rows = rowsOf(readFileSync(path.join(__dirname, 'fixtures/phrases.txt'), 'utf8'))

test('there are some hundreds of them', () => expect(rows.length).toBeGreaterThan(600))

test.each(rows)('with $study, “$phrase” becomes “$becomes”', ({ study, phrase, becomes }) => {
  expect(told(studies[study]!, phrase)).toBe(becomes)
})

test('where nothing is added the study is as it was', () => {
  for (const { study, phrase, becomes } of rows) {
    if (becomes.startsWith('?')) expect(say(studies[study]!, phrase).study).toBe(studies[study])
  }
})

test('a curve that is called R keeps its name: R4 is no sum', () => {
  const study = startStudy('R(x) = x')
  expect(say(study, 'R4 of R')).toHaveProperty('problem')
})

const sentences = rows.filter(({ becomes }) => !becomes.startsWith('?'))
const each = [...new Map(sentences.map((row) => [`${row.study}: ${row.becomes}`, row])).values()]

test.each(each)('with $study, “$becomes” said back is itself', ({ study, becomes }) => {
  expect(told(studies[study]!, becomes)).toBe(becomes)
})

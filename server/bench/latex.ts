import { mkdirSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import {
  createEvaluator,
  exportPicture,
  latexWorking,
  say,
  startStudy,
  type Study,
} from '@yperkine/core'
import { demoStudies } from '../src/demo/studies'

/** Words that mean something to LaTeX, and characters it has no signs for. */
const hostile = [
  '\\input{x} \\write18{ls} 50 % #1 $ & _ ^ ~',
  '}{ \\end{document}',
  '😀 שלום Ünïcödé',
]

function hostileStudies(): Study[] {
  return hostile.map((words) => {
    const said = say(startStudy('f(x) = x^2'), `note ${words.replace(/[\\{}$]/g, ' ')}`)
    const study = 'problem' in said ? startStudy('f(x) = x^2') : said.study
    return { ...study, title: words, about: words }
  })
}

const folder = process.argv[2]!
mkdirSync(folder, { recursive: true })
const all = [...demoStudies.map(({ study }) => study), ...hostileStudies()]
all.forEach((study, i) => {
  const name = String(i + 1).padStart(2, '0')
  const evaluation = createEvaluator({ patience: Infinity })(study)
  const working = latexWorking(evaluation, { answers: true, tables: true, picture: null })
  const size = { width: 530, height: 300 }
  writeFileSync(
    path.join(folder, `picture${name}.tex`),
    exportPicture(study, { format: 'latex', ...size }),
  )
  writeFileSync(path.join(folder, `working${name}.tex`), working.source)
})

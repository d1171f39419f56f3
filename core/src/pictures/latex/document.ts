import type { Drawing } from '../drawing'
import { latexPicture, type LatexSource } from './picture'
import { latexWords } from './words'

/** What a picture and the words about a study want, in the order in which LaTeX takes it. */
export const packages = [
  '\\usepackage[T1]{fontenc}',
  '\\usepackage{lmodern}',
  '\\usepackage{amsmath,amssymb}',
  '\\usepackage{tikz}',
  '\\usetikzlibrary{patterns}',
]

/** A comment of one line, of plain characters. */
export const comment = (text: string) =>
  `% ${text.replace(/[^A-Za-z0-9 .,:;?!()'-]+/g, ' ').trim()}`

/** A picture as a document of its own, its page as large as the picture. */
export function latexDocument(drawing: Drawing): LatexSource {
  const { source, missing } = latexPicture(drawing)
  const [width, height] = [drawing.width, drawing.height].map((v) => `${Math.ceil(v * 0.75) + 2}bp`)
  const text = [
    comment(drawing.title),
    '% For a paper of your own: take the tikzpicture, and load tikz with its library patterns.',
    '\\documentclass{article}',
    ...packages,
    `\\usepackage[paperwidth=${width},paperheight=${height},margin=1bp]{geometry}`,
    '\\pagestyle{empty}',
    '\\setlength{\\parindent}{0pt}',
    '\\begin{document}',
    '\\noindent',
    source,
    '\\end{document}',
    '',
  ].join('\n')
  return { source: text, missing }
}

export const latexHeading = (title: string) => `\\section*{${latexWords(title)}}`

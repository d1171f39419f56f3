import { asText, say, startStudy, workOut } from '../src'

/**
 * npm run ask -- "q(t) = 6 + sin t" "tangent at 2" "area 0 to 4": begins a study with the first words,
 * says the others one after the other, and prints what the lines say; with --json all of it as data.
 */
export function ask(args: readonly string[]): { text: string; ok: boolean } {
  const json = args.includes('--json')
  const [start, ...requests] = args.filter((arg) => arg !== '--json')
  if (start === undefined) {
    return {
      text: 'Say a function first, such as "q(t) = 6 + sin t", then what to add.',
      ok: false,
    }
  }
  let study
  try {
    study = startStudy(start)
  } catch (error) {
    return {
      text: `“${start}”: ${error instanceof Error ? error.message : String(error)}`,
      ok: false,
    }
  }
  const refused: { words: string; problem: string; choices: string[] }[] = []
  for (const words of requests) {
    const said = say(study, words)
    study = said.study
    if ('problem' in said) refused.push({ words, problem: said.problem, choices: said.choices })
  }
  const worked = workOut(study)
  if (json)
    return { text: JSON.stringify({ ...worked, refused }, null, 2), ok: refused.length === 0 }
  const told = refused.flatMap(({ words, problem, choices }) => [
    `? ${words}: ${problem}`,
    ...choices.map((choice) => `    ${choice}`),
  ])
  return { text: [asText(worked.lines), ...told].join('\n'), ok: refused.length === 0 }
}

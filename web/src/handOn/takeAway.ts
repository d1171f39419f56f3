import { fileNameOf, type Study, writeStudyFile } from '@yperkine/core'
import { playerId, studyId } from '../takeAway/page'

const folder = '/takeAway/'

async function part(name: string): Promise<string> {
  const answer = await fetch(`${folder}${name}`)
  if (!answer.ok) throw new Error('the server does not answer with the parts of the page')
  return answer.text()
}

const escaped = (text: string) => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)

/** Every < is written out, so that nothing in a study looks like markup. */
const asData = (json: string) => json.replaceAll('<', '\\u003c')

/** What stays behind: words for the speaker, unless they are to go along. */
export const takenAway = (study: Study, speakers: boolean): Study =>
  speakers ? study : { ...study, steps: study.steps.map((step) => ({ ...step, words: '' })) }

/**
 * A study as one file that moves without a server or a network: the player, its styles and fonts, and
 * the study as data. Its policy lets that one script run and nothing be fetched.
 */
export async function takeAwayPage(
  study: Study,
  speakers: boolean,
): Promise<{ name: string; blob: Blob }> {
  const [script, styles, said] = await Promise.all([
    part('player.js'),
    part('player.css'),
    part('player.json'),
  ])
  const { hash } = JSON.parse(said) as { hash: string }
  const policy = [
    "default-src 'none'",
    `script-src 'sha256-${hash}'`,
    "style-src 'unsafe-inline'",
    'img-src data:',
    'font-src data:',
    'worker-src blob:',
  ].join('; ')
  const html = [
    '<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">',
    `<meta http-equiv="Content-Security-Policy" content="${policy}">`,
    '<meta name="viewport" content="width=device-width, initial-scale=1">',
    `<title>${escaped(study.title)}</title>`,
    `<style>${styles}</style>`,
    '</head>\n<body>',
    `<script type="application/json" id="${studyId}">${asData(writeStudyFile(takenAway(study, speakers)))}</script>`,
    `<script id="${playerId}">${script}</script>`,
    '</body>\n</html>\n',
  ].join('\n')
  return { name: fileNameOf(study.title, 'html'), blob: new Blob([html], { type: 'text/html' }) }
}

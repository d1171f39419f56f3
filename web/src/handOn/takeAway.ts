import { fileNameOf, type Study, writeStudyFile } from '@yperkine/core'
import { playerId, studyId, writtenId } from '../takeAway/page'
import { writtenOut } from './written'

const folder = '/takeAway/'
/** A page that is larger is refused by many a mailbox. */
const mostBytes = 2_500_000

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
 * A study as one file that moves without a server or a network: the player, its styles and fonts, the
 * study as data, and the study written out, which is read where no script may run. Its policy lets that
 * one script run and nothing be fetched.
 */
export async function takeAwayPage(
  study: Study,
  speakers: boolean,
): Promise<{ name: string; blob: Blob }> {
  const taken = takenAway(study, speakers)
  const [script, styles, said, written] = await Promise.all([
    part('player.js'),
    part('player.css'),
    part('player.json'),
    writtenOut(taken),
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
  const html = (before: string) =>
    [
      '<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">',
      `<meta http-equiv="Content-Security-Policy" content="${policy}">`,
      '<meta name="viewport" content="width=device-width, initial-scale=1">',
      `<title>${escaped(study.title)}</title>`,
      `<style>${styles}</style>`,
      '</head>\n<body>',
      before,
      `<script type="application/json" id="${studyId}">${asData(writeStudyFile(taken))}</script>`,
      `<script id="${playerId}">${script}</script>`,
      '</body>\n</html>\n',
    ].join('\n')
  const blob = (before: string) => new Blob([html(before)], { type: 'text/html' })
  // What reads without the script gives way first where there is much of it.
  const { picture, working } = written
  const ways = [
    () => still(study.title, picture, working),
    () => still(study.title, '', working),
    () => still(study.title, '', ''),
  ]
  const pages = ways.map((way) => () => blob(way()))
  const made = pages.reduce<Blob | null>(
    (page, next) => (page && page.size <= mostBytes ? page : next()),
    null,
  )
  return { name: fileNameOf(study.title, 'html'), blob: made! }
}

/** The page before its script has run, and where none may run. */
const still = (title: string, picture: string, working: string) =>
  [
    `<div id="${writtenId}" class="h-full overflow-y-auto"><main class="mx-auto grid max-w-[720px] gap-4 p-4">`,
    `<h1 class="font-serif text-[24px] font-semibold">${escaped(title)}</h1>`,
    '<p class="text-quiet">This is how it stood when it was handed on. Opened in a browser, the page moves.</p>',
    `${picture}<section aria-label="Working"><ol>${working}</ol></section></main></div>`,
  ].join('')

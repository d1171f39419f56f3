import { say, startStudy, type Study } from '..'

function said(study: Study, words: string): Study {
  const found = say(study, words)
  if ('problem' in found) throw new Error(`${words}: ${found.problem}`)
  return found.study
}
const swell = startStudy('w(x) = 1 + sin x for 0 ≤ x ≤ 9')

test.each([
  ['marker raft on w, caption {w(a)} m', '{w(a)} m'],
  ['marker raft on w with the caption “{w(a)} m, going down”', '{w(a)} m, going down'],
  ['marker raft on w at 2 caption: Here', 'Here'],
])('%s has its caption at once', (words, caption) => {
  const line = said(swell, words).lines.at(-1)!
  expect(line).toMatchObject({ kind: 'marker', shape: 'raft', curve: 'w', caption })
})
test('a note may speak of a caption', () => {
  expect(said(swell, 'note See the caption below').lines.at(-1)).toMatchObject({
    kind: 'note',
    text: 'See the caption below',
  })
})
test.each(['title A raft on the swell', 'Title: “A raft on the swell”'])(
  '%s stands on the picture, and is that of the study',
  (words) => {
    const study = said(swell, words)
    expect(study.title).toBe('A raft on the swell')
    expect(study.display.title).toBe(true)
    expect(study.lines).toHaveLength(1)
  },
)

const rows: readonly (readonly [what: string, how: string])[] = [
  [
    'Parts',
    'Say “part” and a title: what is said next stands under it. Its switch shows and hides its lines, and can stand on the deck as well. Lines are dragged into parts and out of them by their numbers.',
  ],
  [
    'Conditions',
    'Any line can be shown only while something holds: 1 ≤ a ≤ 4, q(a) > 0, q falls at a, q is concave up at a, q has a high point within 0.05 of a, part B; joined by not, and, or.',
  ],
  [
    'Markers',
    'Say “marker raft on q”, or “point (2, 3)” for one that is dragged anywhere. Its caption may hold live values in braces: “marker raft on q, caption {a} h, {q(a)}”.',
  ],
  [
    'Notes',
    'Say “note” and its words. {q(a)} is a live value, {formula q} the formula of a curve, $…$ mathematics, in which a live value is \\live{q(a)}. {{ and }} are braces, \\$ is the sign. Enter or a double-click edits a note where it stands. “title” and its words put a title on the picture.',
  ],
  [
    'Trails',
    'Say “trail of q”, “trail of tangents to q”, “trail of slopes of q” or “trail of the area under q”: what a place passes stays, while the line is shown. C clears it.',
  ],
  [
    'Steps',
    '“Keep as step” keeps the state you see: values, frame, lanes, switches, covers. With a step open, what you change of these belongs to it; lines belong to all. Its dots say what it asks, what you say, and what plays when it is come to.',
  ],
  [
    'Presenting',
    'P fills the screen. Page keys of a clicker or [ ] lead on; Space plays what the step plays, then goes on. N hides numbers, D draws, W wipes, L is a large pointer, S opens the speaker’s window with words, next step and clock.',
  ],
  [
    'Motion',
    'Press what moves, on the deck: pace, a slower first pass, whose turn it is, and where a slider stops, such as q′(a) = 0.',
  ],
  [
    'Hand on',
    'Pictures as SVG, PNG or PDF, as you see them or as you choose under “How pictures are made”; a sheet to print, with answers or without, or a handout of the steps; the study as a file, which “Bring in a study” opens.',
  ],
  [
    'Looks',
    'The brush of a line sets its colour, stroke, width, points and words, and takes its look to another line.',
  ],
]

/** How a picture is dressed for others. */
export const Staging = () => (
  <dl className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
    {rows.map(([what, how]) => (
      <div key={what}>
        <dt className="font-semibold">{what}</dt>
        <dd>{how}</dd>
      </div>
    ))}
  </dl>
)

import { Ways } from '../workbench/lesson/Ways'
import { useStepIds, useStepTitles, useStepWords } from '../workbench/lesson/useLesson'
import { useWorkbench, useWorkbenchStore } from '../workbench/store'

/** The steps of the lesson, to go from one to another; what the open one asks stands beside them. */
export function ReadSteps() {
  const { goToStep } = useWorkbenchStore().getState()
  const ids = useStepIds()
  const titles = useStepTitles()
  const open = useWorkbench((s) => s.history.step)
  const question = useStepWords(open)?.question
  if (ids.length === 0) return null
  return (
    <section
      aria-label="Lesson"
      className="flex shrink-0 flex-wrap items-start gap-2 border-t border-rule bg-paper px-4 py-1.5 max-sm:px-2"
    >
      {question && <p className="w-full font-serif">{question}</p>}
      <ol
        aria-label="Steps"
        className="flex max-h-[80px] min-w-0 flex-1 flex-wrap gap-1.5 overflow-y-auto p-0.5 pointer-coarse:max-h-[102px]"
      >
        {ids.map((id, i) => (
          <li key={id}>
            <button
              type="button"
              aria-label={titles[i]}
              aria-current={id === open ? 'step' : undefined}
              title={titles[i]}
              className={`flex min-h-[30px] max-w-[200px] items-center gap-1.5 rounded-md border bg-page px-2 pointer-coarse:min-h-11 ${
                id === open ? 'border-ink outline outline-1 outline-ink' : 'border-rule'
              }`}
              onClick={() => goToStep(id === open ? null : id)}
            >
              <span className="font-serif text-quiet italic">{i + 1}</span>
              <span className="truncate">{titles[i]}</span>
            </button>
          </li>
        ))}
      </ol>
      <div className="flex h-9 shrink-0 items-center gap-1.5 pointer-coarse:h-12">
        <Ways />
      </div>
    </section>
  )
}

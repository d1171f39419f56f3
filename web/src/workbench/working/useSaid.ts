import type { Statement } from '@yperkine/core'
import { useShallow } from 'zustand/react/shallow'
import { useWorkbench } from '../store'

/** Nothing to say is the same nothing each time. */
const nothing: readonly never[] = []
const kept = <T>(all: readonly T[]): readonly T[] => (all.length === 0 ? nothing : all)

/** What stands beside a line's numbers; those change at every frame of a drag, this seldom does. */
export const useSaid = ({ id }: Statement) =>
  useWorkbench(
    useShallow((s) => {
      const {
        problems = [],
        hints = [],
        readouts = [],
        notes = [],
      } = s.evaluation.lines.get(id) ?? {}
      return {
        problems: kept(problems),
        hints: kept(hints),
        notes: kept(notes),
        speaks: readouts.length > 0,
      }
    }),
  )

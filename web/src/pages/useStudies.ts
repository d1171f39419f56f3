import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query'
import type { ListAnswer, Study, StudySummary } from '@yperkine/core'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, reach } from '../api'

/** How often the list looks again while pictures are under way, and after how long: one may never come. */
const mostLooks = 20
const untilLook = (looks: number) => Math.min(10_000, 1000 * 1.3 ** looks)

/** The list of one's own studies, or of examples, page by page, narrowed by words and topic. */
export const useStudies = (search: string, topic: string, example: 'true' | 'false') =>
  useInfiniteQuery({
    queryKey: ['studies', search, topic, example],
    queryFn: ({ pageParam }) => api.list({ search, topic, example, cursor: pageParam }),
    initialPageParam: null as string | null,
    getNextPageParam: (page: ListAnswer) => page.next,
    placeholderData: (before) => before,
    // A study that was just saved is drawn a moment later.
    refetchInterval: ({ state }) =>
      state.data?.pages.some((page) => page.studies.some((s) => s.drawing)) === true &&
      state.dataUpdateCount < mostLooks
        ? untilLook(state.dataUpdateCount)
        : false,
  })

/** What can be done with studies from the list; the one deleted last can be had back. */
export function useStudyActions() {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const [deleted, setDeleted] = useState<StudySummary | null>(null)
  const refresh = () => queries.invalidateQueries({ queryKey: ['studies'] })
  const create = useMutation({
    /** null begins an empty one. What is left to say goes along to the open study. */
    mutationFn: async ({ study }: { study: Study | null; left?: string }) =>
      api.create(study ?? (await reach(import('./blank'))).blankStudy()),
    onSuccess: (stored, { left = '' }) => {
      void navigate(`/studies/${stored.id}`, { state: { left } })
    },
  })
  const remove = useMutation({
    mutationFn: (study: StudySummary) => api.remove(study.id),
    onSuccess: (_nothing, study) => {
      setDeleted(study)
      return refresh()
    },
  })
  const restore = useMutation({
    mutationFn: (study: StudySummary) => api.restore(study.id),
    onSuccess: () => {
      setDeleted(null)
      return refresh()
    },
  })
  return {
    create: create.mutate,
    remove: remove.mutate,
    restore: restore.mutate,
    refresh,
    deleted,
    forgetDeleted: () => setDeleted(null),
    fault: create.error ?? remove.error ?? restore.error,
  }
}

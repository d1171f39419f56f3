import { noTrails, startHistory, type Study } from '@yperkine/core'
import { createStore } from 'zustand'
import { attention } from './attention'
import { createDrawing, noneExamined } from './drawing'
import { editing } from './editing'
import { elsewhere } from './elsewhere'
import { glide } from './glide'
import { lesson } from './lesson'
import { motion } from './motion'
import { presenting } from './presenting'
import type { Size, View, Workbench } from './state'

/** The open study with everything that follows from it: edits go in, results and scene come out. */
export function createWorkbench(id: string, study: Study, request = '', view: View = 'bench') {
  return createStore<Workbench>()((set, get) => {
    const drawing = createDrawing(set, get)
    const size: Size = { width: 0, heights: {} }
    const evaluation = drawing.evaluate(study)
    return {
      id,
      view,
      history: startHistory(study),
      shown: study,
      arrival: null,
      halted: null,
      glide: null,
      presenting: null,
      evaluation,
      scene: drawing.sceneFor(evaluation, size, null),
      size,
      held: null,
      courses: null,
      live: new Map(),
      walk: null,
      trails: noTrails,
      examined: noneExamined,
      selectedPlace: null,
      selectedSpan: null,
      highlight: null,
      left: null,
      status: 'Saved',
      fault: null,
      theirs: null,
      gone: false,
      request,
      announcement: '',
      ...editing(get, drawing),
      ...motion(set, get, drawing),
      ...lesson(set, get, drawing),
      ...glide(get, drawing),
      ...presenting(set, get, drawing),
      ...attention(set, get, drawing),
      ...elsewhere(set, get, drawing),
      pictureScene: drawing.pictureScene,
      clipScenes: drawing.clipScenes,
      stepEvaluation: drawing.stepEvaluation,
    }
  })
}

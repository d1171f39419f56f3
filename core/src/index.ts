/** The scripting surface: these names and shapes are stable. */
export { asText } from './scripting/asText'
export { type ExportOptions, exportPicture } from './scripting/exportPicture'
export { type Said, say } from './scripting/say'
export { startStudy, Unreadable } from './scripting/start'
export { type WorkedLine, workOut } from './scripting/workOut'
export { compile, type FormulaOptions } from './algebra/compile'
export { differentiate } from './algebra/differentiate'
export { simplify } from './algebra/simplify'
export type {
  Break,
  BreakKind,
  Examination,
  Extreme,
  Feature,
  Inflection,
  TurningPoint,
} from './features/examination'
export { examine, examineInSteps } from './features/examine'
export { accumulate, type Accumulation } from './calculus/accumulate'
export {
  areaBetween,
  areaUnder,
  averageValue,
  differenceOf,
  type TotalArea,
} from './calculus/areas'
export { fitPolynomial, type PolynomialFit } from './calculus/fit'
export { fitShape, type Shape, type ShapeFit } from './calculus/fitShapes'
export { integrate, type Integral } from './calculus/integrate'
export { addReadings } from './requests/readings'
export { measuredStrips, readingsProblem } from './calculus/measuredSums'
export { type OverShort, overShort, type Sliver, stripTop } from './calculus/overShort'
export {
  riemannSum,
  type RiemannSum,
  type Strip,
  stripEnds,
  type SumRule,
  sumRules,
} from './calculus/riemann'
export {
  countByBound,
  errorBoundOf,
  fittedOrder,
  countsKept,
  sumErrorBound,
  usualOrder,
} from './calculus/sumErrors'
export { limit, type Limit } from './features/limits/limit'
export { minimize, minimizeGlobally, minimizeInSteps } from './search/minimize'
export { populationWalk, seeded } from './search/population'
export type { Found, Probe } from './search/walk'
export { type CsvTable, readCsv, toCsv } from './tables/csv'
export {
  readingQuotients,
  type Table,
  type TableColumn,
  tableColumns,
  tabulate,
} from './tables/table'
export { solve, type Solutions } from './features/solve'
export {
  differenceQuotient,
  type DifferenceQuotient,
  type QuotientRule,
  secantLine,
  type Secant,
} from './calculus/secant'
export { tangentLine, type Tangent } from './calculus/tangent'
export { taylorPolynomial } from './calculus/taylor'
export type { RealFunction } from './evaluate/compile'
export { toLatex } from './language/latex'
export { parseFormula } from './calculus/parseFormula'
export type { Parsed, ParseOptions } from './language/parse'
export { toPlain, toText } from './language/print'
export type { Hint, Problem } from './language/problems'
export type { Tree } from './formula/tree'

/** What the web page and the server build on; it may change with them. */
export * from './api'
export { readFormula } from './calculus/readFormula'
export { parseDefinition } from './language/definition'
export { joinPieces, type PieceRow, rowAt, splitPieces } from './language/rows'
export { derivativeToLatex, nameToLatex } from './language/latex'
export { type Fill, type Item, type Ink } from './scene/items'
export type { Inset } from './scene/inset'
export { labelNames } from './scene/labelNames'
export { labelBox } from './scene/obstacles'
export { isFilled, markerPath } from './scene/markers'
export type { Finding } from './scene/findings'
export type { Findings } from './scene/ground'
export type { Corner } from './scene/corners'
export { laneTitle } from './scene/laneTitle'
export type { Bar, Flag, LaneScene, Scene } from './scene/picture'
export { slidersIn, withoutUnused } from './study/edits/unused'
export { isOpen } from './study/windows'
export { drawnIn } from './study/edits/laneCurves'
export { drawHere, laddersOf, openLane, ownLane } from './study/edits/lanes'
export { flagWidth } from './scene/flags'
export { fitOrWhole } from './scene/fitting'
export { curveInk, type Tint, tintsOf } from './scene/looks'
export { isDark, mixSaturation } from './pictures/palettes'
export { edgesOf, spaceBack, spaceBody } from './pictures/space/drawn'
export { spaceFront } from './pictures/space/front'
export type { SpaceStyle } from './pictures/space/style'
export { blend, brightness, inkShare, uprightAt, uprightOf } from './pictures/space/faces'
export { type Camera, cameraOf, seenPoint } from './scene/space/camera'
export {
  hasSpace,
  meshOf,
  spaceOf,
  type SpaceLines,
  type SpaceScene,
  type SpaceSheet,
} from './scene/space/spaceScene'
export { createSceneMaker, type SceneMaker } from './scene/scene'
export { type CurveReading, readCurveAt } from './scene/reading'
export { findRange, type Range, type RangeEnd, rangeInSteps } from './features/range'
export { roundStep } from './features/whatMatters'
export { letterAlong } from './scene/placesAlong'
export { thumbnail } from './scene/thumbnail'
export type { Statement } from './statements'
export {
  type CurveMaker,
  type FormulaLine,
  isCurveMaker,
  isFormulaLine,
  isSurfaceMaker,
  kindOf,
  wordsOf,
} from './statements'
export { actionsOf } from './study/actions'
export type {
  DrawnFunction,
  CurveResult,
  ChartSeries,
  LineAction,
  LineProblem,
  LineResult,
  Mix,
  Phrase,
  Point3,
  Readout,
  ResultChart,
  ResultTable,
  SignFigure,
  SliderRole,
  Verdict,
} from './statements/contract'
export { tableTitle } from './statements/contract'
export { readingsLine } from './statements/readings'
export { parseCurveRef, sentenceText } from './statements/shared/slots'
export { blankStudy, createStudy } from './study/create'
export type { Created } from './study/created'
export * from './study/edits/edit'
export * from './study/edits/labels'
export * from './study/edits/lanes'
export * from './study/edits/lines'
export * from './study/edits/names'
export * from './study/edits/places'
export * from './study/edits/sliders'
export * from './study/edits/space'
export * from './study/edits/spans'
export * from './study/edits/study'
export * from './study/framing'
export { compareGuess, type GuessCompared } from './study/guess'
export * from './study/motion'
export * from './study/walk'
export * from './study/signGuess'
export { createEvaluator, type Evaluator } from './results/evaluate'
export { type Evaluation, spanBounds } from './results/evaluation'
export {
  endGesture,
  type History,
  openStep,
  record,
  redo,
  startHistory,
  undo,
} from './study/history'
export { studyJsonSchema } from './study/schema/jsonSchema'
export { createStopper } from './results/stops'
export { onlyMoves } from './study/reading'
export { typedSurface } from './study/typedSurface'
export { goneFrom, takenFromStep } from './study/steps'
export {
  changeStep,
  duplicateStep,
  forgetGone,
  keepAsStep,
  moveStep,
  removeStep,
  type Trailed,
} from './study/edits/steps'
export {
  decimalsOfStep,
  formatCertain,
  formatNotZero,
  formatNumber,
  formatPower,
  formatShort,
  numberToFormula,
} from './vocabulary/numbers'
export type { LineTexts } from './vocabulary/equation'
export { lineEquation, pointSlopeEquation, standardEquation } from './vocabulary/equation'
export type { ExactForm } from './vocabulary/exactForms'
export { addLine, lineOffer, offersAtPoint, offersOverSpan, whyNothing } from './requests/offers'
export { offersFor, type Understood, understand, understandFirst } from './requests/understand'
export { type Begun, begin } from './requests/start'
export { examples } from './requests/examples'
export { type Group, type Suggestion, suggestions } from './requests/suggestions'
export type { Offer } from './requests/offer'
export {
  type Answers,
  type SpaceView,
  usualSpace,
  type Display,
  type Lane,
  lineColours,
  lineDashes,
  type LineLook,
  looks,
  type Manner,
  manners,
  type MarkerShape,
  markerShapes,
  type Motion,
  type Part,
  type Step,
  type Attempt,
  type SignGuess,
  type Slider,
  type SpanText,
  usualMotion,
  type Variable,
} from './vocabulary/members'
export {
  isNewer,
  presentFormat,
  readStudyFile,
  type Study,
  type StudyInput,
  studyProblems,
  studySchema,
  writeStudyFile,
} from './study/schema'
export type { ConditionProblem } from './statements/condition'
export { conditionProblems } from './study/conditions'
export type { Showing, ShowingProblem } from './results/showing'
export {
  addPart,
  changePart,
  moveRow,
  removePart,
  setCondition,
  withoutGoneParts,
} from './study/edits/parts'
export { movePoint, nudgePoint } from './study/edits/points'
export { type Row, rowsOf } from './study/parts'
export { typeOf } from './scene/looks'
export { widestNote } from './scene/notes'
export { grownTrails, noTrails, type Trails } from './scene/trails'
export { clearAnswers, setGuess, setSignGuess, tryAgain } from './study/answers'
export { type Overlay, shownStudy } from './study/overlay'
export { sliderRole } from './study/sliderRoles'
export { createThoroughEvaluator } from './scripting/evaluatedThrough'
export { clipOf, type Clip, type ClipOptions, mostFrames } from './study/clip'
export { latexTable, latexWorking, type WorkingOptions } from './pictures/latex/working'
export { latexDocument } from './pictures/latex/document'
export { latexPicture, type LatexSource } from './pictures/latex/picture'
export { isCertain } from './statements/shared/said'
export { extremeText } from './statements/shared/exactPlaces'
export { editSlot, retype, type SlotEdit } from './study/slotEdits'
export { topicsOf } from './study/summary'
export { allTopics, type Topic } from './vocabulary/topics'
export {
  cutSpan,
  parseSpan,
  readNumber,
  shareOfSlider,
  sliderValueAt,
  snapToStep,
} from './vocabulary/values'

export type {
  Drawing,
  Drawn,
  Face,
  Hatch,
  NotePiece,
  Outline,
  Typesetter,
} from './pictures/drawing'
export { setNote } from './pictures/notes'
export { palettes, type PictureLook, pictureLooks } from './pictures/palettes'
export { fileNameOf } from './pictures/fileName'
export { heightBeside, pictureOf, type PictureParts } from './pictures/picture'
export { heightsIn, spaceId } from './pictures/space/heights'
export {
  contentWidth,
  handoutOf,
  pageSize,
  type Paper,
  papers,
  pixelsOfMillimetre,
  sheetOf,
  type SheetOptions,
  type StepPicture,
} from './pictures/sheet'
export { svgOf, type WordsAs } from './pictures/svg'

export {
  compares,
  type ConditionContext,
  type ConditionTrouble,
  judge,
  type Judgement,
  type PartOn,
} from './judge'
export { neverOver, type RangeContext } from './never'
export {
  conditionsIn,
  keptPart,
  type LetterOf,
  type PartText,
  printCondition,
  readPart,
} from './print'
export {
  type Condition,
  type ConditionProblem,
  type Piece,
  type ReadCondition,
  readCondition,
} from './read'

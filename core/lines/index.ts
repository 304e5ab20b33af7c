/** Keep-lines. */
export { compareLines, mirrorPath } from './compareLines.ts'
export {
  besidePath,
  type KeepLine,
  LINE_CONSTANTS,
  LINE_KINDS,
  LINE_WORDS,
  type LineKind,
  lineName,
  linePath,
  lineSide,
  type LineTap,
  mirrorLine,
} from './keepLine.ts'
export { missingEdges } from './edges.ts'
export { areaDownTo, FADE_EDGES, type FadeEdge, leastEdge } from './proposeArea.ts'
export {
  beginMove,
  type Candidate,
  fillDays,
  keptLines,
  type LineChange,
  lineChange,
  type LineMove,
  MOVE_CONSTANTS,
  type MoveDates,
  moveDates,
  moveOn,
  overcutRest,
  restingOutline,
  shiftTaps,
  stepsFor,
  stepTaps,
} from './moveLine.ts'
export {
  type DrawnOutline,
  drawnOutlines,
  isClosed,
  type Outline,
  OUTLINE_CONSTANTS,
  OUTLINE_KINDS,
  OUTLINE_WORDS,
  outlineCm2,
  outlineInside,
  type OutlineKind,
  outlinePath,
  outlineProblem,
  standingOutlines,
  usualStrip,
  workedOutlines,
} from './outline.ts'
export { differenceWords, keptSideWords } from './lineWords.ts'
export { type Place, placeOn, SIDEBURN_CUTS, type SideburnCut, usualLine } from './usualLine.ts'
export {
  beginLine,
  dropPoint,
  isEarlierOf,
  leadOn,
  missingLines,
  movePoint,
  nudgePoint,
  takesTaps,
  withMirror,
} from './editLine.ts'

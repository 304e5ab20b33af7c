/** What the server answers, as types: what its schemas let through. */
import type { InferType } from 'yup'
import type * as a from './answers.ts'

export type VisitState = (typeof a.VISIT_STATES)[number]
export type Health = InferType<typeof a.healthAnswer>
export type Worker = InferType<typeof a.workerAnswer>
export type HouseChange = InferType<typeof a.houseChangeAnswer>
export type House = InferType<typeof a.houseAnswer>
export type Client = InferType<typeof a.clientAnswer>
export type VisitSummary = InferType<typeof a.visitSummaryAnswer>
export type ClientPage = InferType<typeof a.clientPageAnswer>
export type Tide = InferType<typeof a.tideAnswer>
/** The line of one kind of work. */
export type TideLineOf = Tide['others'][number]
export type VisitPage = InferType<typeof a.visitPageAnswer>
export type AnswerLink = InferType<typeof a.answerLinkAnswer>
export type ClientHistory = InferType<typeof a.clientHistoryAnswer>
export type StudioAnswer = InferType<typeof a.studioAnswer>
export type ImportRecord = InferType<typeof a.importAnswer>
export type ImportUndone = InferType<typeof a.importUndoneAnswer>
export type ChairAnswer = InferType<typeof a.chairAnswer>
export type ProbeReading = InferType<typeof a.probeAnswer>
export type Photo = InferType<typeof a.photoAnswer>
export type Message = InferType<typeof a.messageAnswer>
export type KitLog = InferType<typeof a.kitLogAnswer>
export type TodayRow = InferType<typeof a.todayRowAnswer>
export type Today = InferType<typeof a.todayAnswer>
export type Session = InferType<typeof a.sessionAnswer>
export type People = InferType<typeof a.peopleAnswer>
export type Screens = InferType<typeof a.screensAnswer>
export type Trail = InferType<typeof a.trailAnswer>
export type Safety = InferType<typeof a.safetyAnswer>
export type Difference = InferType<typeof a.differenceAnswer>
export type ClientRow = InferType<typeof a.clientRowAnswer>
export type ClientRows = InferType<typeof a.clientRowsAnswer>
export type Problem = InferType<typeof a.problemAnswer>

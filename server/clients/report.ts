/**
 * A report of a client as PDF, for themselves or a doctor: what was found, what was done, how the skin took it; maps and charts in
 * lines. It says what it is: a studio's record, no diagnosis.
 */
import { fullDate, shortDate } from '../../core/time/index.ts'
import { figuresOf } from '../../core/register/index.ts'
import { changeEffects, findChanges, separabilityWords } from '../../core/history/index.ts'
import { bumpSeverity, REDNESS_WORDS } from '../../core/skin/index.ts'
import { DRYNESS_WORDS } from '../../core/looks/index.ts'
import { CLOSING_SENTENCE } from '../../core/screening/index.ts'
import { isBodyService, jobsWords, SERVICES } from '../../core/services/index.ts'
import { lowerFirst } from '../../core/words.ts'
import { askedInWords } from '../../core/visit/index.ts'
import { readHouse } from '../house/service.ts'
import type { Reads } from '../db/reader.ts'
import { Pen, SOFT } from '../paper/pen.ts'
import { clientHistory } from '../studio/history.ts'
import { readVisit } from '../visits/record.ts'
import { charts, maps } from './reportPictures.ts'
import { clientPage } from './service.ts'

/** Visits told one by one, and visits in the charts. */
const VISITS_TOLD = 14
const VISITS_CHARTED = 40

export async function clientReport(db: Reads, id: string): Promise<Buffer> {
  const [page, house, history] = await Promise.all([
    clientPage(db, id),
    readHouse(db),
    clientHistory(db, id),
  ])
  const { client } = page
  const figures = figuresOf(house.figures)
  const finished = page.visits.filter((v) => v.state === 'finished')
  const kept = history.visits.length
  const [lastSummary] = finished
  const last = lastSummary && (await readVisit(db, lastSummary.id))
  const pen = new Pen(`Report, ${client.name}`, house.name, 10.5, 46)
  pen.write(client.name, { weight: 700, scale: 2 })
  pen.write(
    `${SERVICES[client.service].name} · ${kept} ${kept === 1 ? 'visit' : 'visits'} kept · made ${fullDate(Date.now())} at ${house.name}`,
    { colour: SOFT, gap: 0.4 },
  )
  pen.write(
    'A studio’s own record of services with a blade and of how the skin took them. It is no diagnosis; redness is graded by eye from 0 to 4 and bumps are counted.',
    { gap: 0.8 },
  )
  const section = (title: string, room = 60) => {
    pen.need(room)
    pen.write(title, { weight: 700, scale: 1.25, gap: 0.1 })
    pen.rule()
  }
  section('Skin and hair as told')
  pen.write(told(client.skin), { gap: 0.2 })
  pen.write(askedInWords(last?.asked), { gap: 0.8 })
  if (last && !isBodyService(last.service)) maps(figures, pen, section, last, history.looks)
  if (finished.length > 0) {
    section('Over time', 210)
    charts(pen, history.visits.slice(-VISITS_CHARTED))
  }
  const effects = changeEffects(
    figures,
    findChanges(
      figures,
      history.visits.filter((v) => v.service === client.service),
    ),
  )
  if (effects.length > 0) {
    section('Changes of routine')
    const seen = new Set<object>()
    for (const e of effects) {
      pen.need(40)
      if (!seen.has(e.change)) {
        seen.add(e.change)
        pen.write(`${shortDate(e.change.atMs)}: ${e.change.words}`, { weight: 700 })
        pen.write(separabilityWords(e.change), { colour: SOFT })
      }
      pen.write(e.words, { gap: 0.25 })
    }
    pen.skip(0.5)
  }
  section('Visits', 80)
  if (finished.length === 0) pen.write('No service has been finished yet.')
  for (const v of finished.slice(0, VISITS_TOLD)) {
    pen.need(44)
    const looks = history.looks.filter((l) => l.visitId === v.id)
    const facts = history.visits.find((f) => f.visitId === v.id)
    pen.row(
      `${fullDate(v.endedAtMs!)}, ${lowerFirst(jobsWords(v.jobs))}`,
      visitWords(
        facts,
        looks.map((l) => l.answer),
      ),
      v.worstRedness === null
        ? 'not answered'
        : `redness ${v.worstRedness}, ${REDNESS_WORDS[v.worstRedness]![0]}${v.bumps === null ? '' : `; ${v.bumps} ${v.bumps === 1 ? 'bump' : 'bumps'} (${bumpSeverity(figures, v.bumps)})`}`,
      SOFT,
    )
  }
  if (kept > VISITS_TOLD) {
    pen.write(`${kept - VISITS_TOLD} earlier visits are kept and not told here.`, {
      colour: SOFT,
    })
  }
  pen.skip(0.5)
  pen.need(50)
  pen.write(
    `${CLOSING_SENTENCE} "Not answered" is not "clear". Estimates of the studio’s models are not in this report.`,
    {
      colour: SOFT,
      scale: 0.86,
    },
  )
  return pen.end()
}

const REACTIVITY = {
  tough: 'Tough skin',
  average: 'Average skin',
  reactive: 'Reactive skin',
} as const

function told(skin: {
  reactivity: keyof typeof REACTIVITY
  faceHair: string
  coarseness: string
  curl: string
  bumpProne: boolean
}): string {
  return `${REACTIVITY[skin.reactivity]}; ${skin.coarseness}, ${skin.curl} hair; ${skin.faceHair === 'beard' ? 'a beard' : 'fuzz on the face'}${skin.bumpProne ? '; prone to bumps' : ''}.`
}

function visitWords(
  facts:
    { choices: { blade: string } | null; routine: string; products: readonly string[] } | undefined,
  answers: readonly {
    feeling?: { stinging?: number; itch?: number; dryness?: number; words?: string }
  }[],
): string {
  const most = (
    pick: (f: { stinging?: number; itch?: number; dryness?: number }) => number | undefined,
  ) => Math.max(-1, ...answers.map((a) => pick(a.feeling ?? {}) ?? -1))
  const [sting, itch, dry] = [most((f) => f.stinging), most((f) => f.itch), most((f) => f.dryness)]
  return [
    facts?.choices?.blade ?? '',
    facts?.routine ? `from here: ${facts.routine}` : '',
    sting > 0 ? `stinging up to ${sting} of 10` : '',
    itch > 0 ? `itch up to ${itch} of 10` : '',
    dry > 0 ? `dryness: ${DRYNESS_WORDS[dry]}` : '',
    ...answers.flatMap((a) => (a.feeling?.words ? [`“${a.feeling.words}”`] : [])),
  ]
    .filter(Boolean)
    .join('; ')
}

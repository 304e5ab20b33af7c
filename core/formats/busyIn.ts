/**
 * Busy times out of a calendar (iCalendar, RFC 5545): when somebody is not to be had, and nothing of what they do then. Rules that
 * come again and their exceptions, time zones of the file or by their names, whole days, hours of no zone by the house's clock.
 */
import ICAL from 'ical.js'
import { DomainError } from '../errors.ts'
import { momentAt, MOST_CALENDAR, type Stretch } from '../week/index.ts'
import type { Offset } from '../time/index.ts'

const MOST_EVENTS = 5000
/** Steps along rules, of one and of all together. */
const STEPS_OF_ONE = 20_000
const STEPS_IN_ALL = 150_000
const MOST_TIMES = 5000
const MIN_MS = 60_000
const DAY_MS = 24 * 60 * MIN_MS

export interface BusyIn {
  /** In order, those that touch made one. */
  readonly busy: readonly Stretch[]
  /** Events in the file; of them those that take no time, or are called off. */
  readonly events: number
  readonly free: number
}

const refuse = (why: string): never => {
  throw new DomainError(
    'calendar',
    `${why} Nothing was taken from it; what was there before stays.`,
  )
}

/**
 * @param within what lies outside is left out
 * @param offset of the house: hours of no zone are by its clock
 * @throws DomainError in words for whoever chose the file
 */
export function busyIn(text: string, within: Stretch, offset: Offset): BusyIn {
  if (text.length > MOST_CALENDAR) refuse('That file is too long for a calendar of one worker.')
  if (!/^\s*\uFEFF?BEGIN:VCALENDAR/i.test(text)) refuse('That is no calendar file (.ics).')
  const calendars = parsed(text)
  const components = calendars.flatMap((c) => c.getAllSubcomponents('vevent'))
  if (components.length > MOST_EVENTS)
    refuse(`That calendar has ${components.length} events; ${MOST_EVENTS} are the most.`)
  const exceptions = new Map<string, ICAL.Component[]>()
  const masters: ICAL.Component[] = []
  for (const c of components) {
    if (!c.hasProperty('dtstart')) refuse('An event in that file does not say when it begins.')
    if (!c.hasProperty('recurrence-id')) masters.push(c)
    else {
      const uid = String(c.getFirstPropertyValue('uid') ?? '')
      exceptions.set(uid, [...(exceptions.get(uid) ?? []), c])
    }
  }
  const all: Stretch[] = []
  let free = 0
  let steps = 0
  const put = (fromMs: number, toMs: number) => {
    if (!(toMs > fromMs) || toMs <= within.fromMs || fromMs >= within.toMs) return
    if (all.length >= MOST_TIMES) refuse(`That calendar comes to more than ${MOST_TIMES} times.`)
    all.push({ fromMs: Math.max(fromMs, within.fromMs), toMs: Math.min(toMs, within.toMs) })
  }
  for (const component of masters) {
    if (takesNoTime(component)) {
      free++
      continue
    }
    try {
      const uid = String(component.getFirstPropertyValue('uid') ?? '')
      const event = new ICAL.Event(component, {
        exceptions: exceptions.get(uid) ?? [],
        strictExceptions: false,
      })
      const clock = clockOf(component, offset)
      if (!event.isRecurring()) {
        put(clock(event.startDate), clock(event.endDate))
        continue
      }
      for (const rule of component.getAllProperties('rrule')) checkRule(rule)
      const walk = event.iterator()
      for (let n = 0; ; n++, steps++) {
        if (n > STEPS_OF_ONE || steps > STEPS_IN_ALL)
          refuse('An event in that file comes again too often to be read.')
        const next = walk.next()
        // A day more: the zones of the file may lie either side of the house's.
        if (!next || clock(next) > within.toMs + DAY_MS) break
        const { item, startDate, endDate } = event.getOccurrenceDetails(next)
        if (takesNoTime(item.component)) continue
        const own = item.component === component ? clock : clockOf(item.component, offset)
        put(own(startDate), own(endDate))
      }
    } catch (error) {
      if (error instanceof DomainError) throw error
      refuse(`An event in that file cannot be read (${wordsOf(error)}).`)
    }
  }
  return { busy: joined(all), events: components.length, free }
}

const wordsOf = (error: unknown) =>
  (error instanceof Error ? error.message : String(error)).slice(0, 120)

function parsed(text: string): ICAL.Component[] {
  try {
    const read = ICAL.parse(text.replace(/^\s*\uFEFF/, '')) as unknown[]
    const all = (Array.isArray(read[0]) ? read : [read]) as unknown[][]
    return all.map((c) => new ICAL.Component(c as never))
  } catch (error) {
    return refuse(`That calendar file is broken (${wordsOf(error)}).`)
  }
}

const takesNoTime = (c: ICAL.Component) =>
  /^cancelled$/i.test(String(c.getFirstPropertyValue('status') ?? '')) ||
  /^transparent$/i.test(String(c.getFirstPropertyValue('transp') ?? ''))

const MONTH_DAYS = [31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]

/** Rules by the second, and days that never come, would be walked for ever. */
function checkRule(property: ICAL.Property): void {
  const rule = property.getFirstValue() as ICAL.Recur
  if (/^(SECONDLY|MINUTELY|HOURLY)$/.test(rule.freq))
    refuse('An event in that file comes again within a day: that is no busy time.')
  const numbers = (part: string) => (rule.parts[part as never] as number[] | undefined) ?? []
  const months = numbers('BYMONTH')
  const days = numbers('BYMONTHDAY')
  const on = months.length > 0 ? months : MONTH_DAYS.map((_, i) => i + 1)
  const comes =
    days.length === 0 ||
    on.some((m) => days.some((d) => d !== 0 && Math.abs(d) <= (MONTH_DAYS[m - 1] ?? 0)))
  if (!comes || numbers('BYYEARDAY').some((d) => d === 0 || Math.abs(d) > 366))
    refuse('An event in that file comes again on a day that there is not.')
}

/** Reads times of an event: by the zone that the file describes, by a zone's own name, else by the house's clock. */
function clockOf(component: ICAL.Component, offset: Offset): (t: ICAL.Time) => number {
  const named = component.getFirstProperty('dtstart')?.getParameter('tzid')
  const zone = typeof named === 'string' ? namedZone(named) : undefined
  return (t) => {
    const date = `${String(t.year).padStart(4, '0')}-${two(t.month)}-${two(t.day)}`
    if (t.isDate) return momentAt(date, 0, offset)
    const own = t.zone as ICAL.Timezone | null
    const floats = !own || own === ICAL.Timezone.localTimezone
    if (!floats) return t.toUnixTime() * 1000
    return momentAt(date, t.hour + t.minute / 60, zone ?? offset)
  }
}
const two = (n: number) => String(n).padStart(2, '0')

/** Minutes east of UTC in a zone of the time zone database; undefined for a name that it does not know. */
function namedZone(name: string): ((ms: number) => number) | undefined {
  let format: Intl.DateTimeFormat
  try {
    format = new Intl.DateTimeFormat('en-US', {
      ...{ timeZone: name, hourCycle: 'h23', year: 'numeric', month: 'numeric', day: 'numeric' },
      ...{ hour: 'numeric', minute: 'numeric', second: 'numeric' },
    })
  } catch {
    return undefined
  }
  return (ms) => {
    const of = Object.fromEntries(format.formatToParts(ms).map((p) => [p.type, Number(p.value)]))
    const wall = Date.UTC(of['year']!, of['month']! - 1, of['day'], of['hour'], of['minute'])
    return Math.round((wall - ms) / MIN_MS)
  }
}

function joined(all: readonly Stretch[]): Stretch[] {
  const out: Stretch[] = []
  for (const s of [...all].sort((a, b) => a.fromMs - b.fromMs)) {
    const last = out.at(-1)
    if (last && s.fromMs <= last.toMs)
      out[out.length - 1] = { fromMs: last.fromMs, toMs: Math.max(last.toMs, s.toMs) }
    else out.push(s)
  }
  return out
}

/** The jobs of a visit: people have brows, lip and cheek done in one sitting by different means, each at its own rhythm. */
import { DomainError } from '../errors.ts'
import { capital, listWords } from '../words.ts'
import { areaOf, isBody, zoneStem, type ZoneId } from '../zones/index.ts'
import {
  isBodyService,
  SERVICES,
  serviceZones,
  workedShare,
  zonesToChoose,
  type ServiceId,
} from './list.ts'
import { byRoot, isPlanned, methodFacts, type HandMethod, type Method } from './method.ts'

/** One piece of work of a visit. */
export interface Job {
  readonly id: string
  readonly service: ServiceId
  /** Zones that it works; null is all that the service names. */
  readonly zones: readonly ZoneId[] | null
  readonly method: Method
  /** Days between two of it, where the client keeps a rhythm of their own. */
  readonly everyDays?: number | undefined
}

/** What is worked, and how: a job without its name. */
export type Work = Pick<Job, 'service' | 'method' | 'zones'>

/** A whole service with a blade, as the only job of a visit. */
export const oneJob = (id: string, service: ServiceId): Job => ({
  id,
  service,
  zones: null,
  method: 'blade',
})

/** The job that a visit is known by in lists and on the tide line: the first. */
export function leadJob<J extends Pick<Job, 'id'>>(jobs: readonly J[]): J {
  const [lead] = jobs
  if (!lead) throw new DomainError('no-job', 'A visit needs something that is to be done.')
  return lead
}

/** The zones of a job, in the order in which its service names them. */
export const jobZones = (job: Pick<Job, 'service' | 'zones'>): readonly ZoneId[] =>
  job.zones ?? serviceZones(job.service)

/** True where a job works a zone. */
export const works = (job: Pick<Job, 'service' | 'zones'>, zone: ZoneId): boolean =>
  job.zones ? job.zones.includes(zone) : serviceZones(job.service).includes(zone)

/** The zones of several jobs, each once. */
export const zonesOfJobs = (jobs: readonly Pick<Job, 'service' | 'zones'>[]): ZoneId[] => [
  ...new Set(jobs.flatMap(jobZones)),
]

/** The services of several jobs, each once, in their order. */
export const servicesOf = (jobs: readonly Pick<Job, 'service'>[]): ServiceId[] => [
  ...new Set(jobs.map((j) => j.service)),
]

/** Work that is the same in kind: what its rhythm, its learning and its price go by. */
export const kindOfWork = ({ service, method }: Pick<Job, 'service' | 'method'>): string =>
  `${service}:${method}`

/** Jobs that are planned as one: the same service by the same method, however many jobs it was put down as. */
export interface JobGroup {
  readonly service: ServiceId
  readonly method: 'blade' | 'guarded'
  readonly jobs: readonly Job[]
  /** Zones of its own; null is all that the service names. */
  readonly zones: readonly ZoneId[] | null
}

/** A job that is done by hand. */
export type HandJob = Job & { readonly method: HandMethod }

/**
 * What of a sitting is planned stroke by stroke, in the order in which it was put down. Skin that two of them would work goes to
 * the first.
 */
export function plannedGroups(jobs: readonly Job[]): JobGroup[] {
  const groups = new Map<string, { service: ServiceId; method: 'blade' | 'guarded'; jobs: Job[] }>()
  for (const job of jobs) {
    const { service, method } = job
    if (!isPlanned(method)) continue
    const had = groups.get(kindOfWork(job))
    if (had) had.jobs.push(job)
    else groups.set(kindOfWork(job), { service, method, jobs: [job] })
  }
  const taken = new Set<ZoneId>()
  return [...groups.values()].map((group): JobGroup => {
    const wanted = new Set(zonesOfJobs(group.jobs))
    const own = zonesToChoose(group.service).filter((z) => wanted.has(z) && !taken.has(z))
    const whole = group.jobs.some((j) => j.zones === null) && own.length === wanted.size
    for (const z of own) taken.add(z)
    return { ...group, zones: whole ? null : own }
  })
}

/** What of a sitting is done by hand. */
export const handJobs = (jobs: readonly Job[]): HandJob[] =>
  jobs.filter((j): j is HandJob => !isPlanned(j.method))

/** Zones that a blade is to go over: of what is done by hand nobody needs the map. */
export const strokedZones = (jobs: readonly Job[]): ZoneId[] => zonesOfJobs(plannedGroups(jobs))

/** The job of a group that a zone is worked for. */
export const jobFor = (group: JobGroup, zone: ZoneId): Job =>
  group.jobs.find((j) => works(j, zone)) ?? leadJob(group.jobs)

/** Areas in words, as they read after "on": "the lip and the chin". */
export const areaWords = (zones: readonly ZoneId[]): string =>
  listWords([...new Set(zones.map((z) => areaOf(zoneStem(z)).name))])

/** A job as it is named: "Hot-towel face shave", "Wax: the lip", "Guarded facial razor: the lip and the chin". */
export function jobName(job: Work): string {
  const { name } = SERVICES[job.service]
  const usual = serviceZones(job.service)
  const more = (job.zones ?? []).filter((z) => !usual.includes(z))
  const zones = job.zones && job.zones.length - more.length < usual.length
  const how = isPlanned(job.method)
    ? name + (job.method === 'guarded' && !/guarded/i.test(name) ? ', guarded blade' : '')
    : capital(methodFacts(job.method).name)
  if (zones) return `${how}: ${areaWords(jobZones(job))}`
  // The whole service, and places that were asked for besides.
  if (more.length > 0 && isPlanned(job.method)) return `${how} with ${areaWords(more)}`
  return isPlanned(job.method) ? how : `${how}: ${name.toLowerCase()}`
}

/** Several jobs in a line: "Head shave and beard line-up". */
export const jobsWords = (jobs: readonly Work[]): string =>
  listWords(jobs.map((j, i) => (i === 0 ? jobName(j) : lowerJob(jobName(j)))))

const lowerJob = (name: string) => name.charAt(0).toLowerCase() + name.slice(1)

/**
 * Looks whether jobs can be one sitting.
 * @throws DomainError `no-job`, `twice-one-id`, `not-its-skin`, `two-grounds`, `nothing-of-its-own`, `root-and-blade`, `twice-by-hand`
 */
export function checkSitting(jobs: readonly Job[]): void {
  leadJob(jobs)
  if (new Set(jobs.map((j) => j.id)).size < jobs.length)
    throw new DomainError(
      'twice-one-id',
      'Two jobs of this sitting go by one id, so their work could not be told apart. Nothing was changed.',
    )
  for (const job of jobs) {
    const strange = (job.zones ?? []).filter(
      (z) => isPlanned(job.method) && !workedShare(job.service, z),
    )
    if (strange.length > 0)
      throw new DomainError(
        'not-its-skin',
        `${SERVICES[job.service].name} does not work ${areaWords(strange)}. Choose other places, or another service for them.`,
      )
  }
  const groups = plannedGroups(jobs)
  if (new Set(groups.map((g) => isBodyService(g.service))).size > 1)
    throw new DomainError(
      'two-grounds',
      'A blade on the head and one on the body are two sittings: the client sits for one and lies for the other. Put them in as visits of their own, one after the other.',
    )
  const empty = groups.find((g) => g.zones?.length === 0)
  if (empty)
    throw new DomainError(
      'nothing-of-its-own',
      `${SERVICES[empty.service].name}: another job of this sitting already works all of its skin. Leave one of them away, or give each its own places.`,
    )
  const bladed = new Set(groups.flatMap((g) => jobZones(g)))
  const hand = handJobs(jobs)
  const torn = hand
    .filter((j) => byRoot(j.method) && j.method !== 'tweezers')
    .flatMap((j) => jobZones(j).filter((z) => bladed.has(z)))
  if (torn.length > 0)
    throw new DomainError(
      'root-and-blade',
      `A blade and wax or thread on the same skin in one sitting take it twice: ${areaWords(torn)}. Choose one of them there.`,
    )
  const seen = new Set<string>()
  for (const job of hand)
    for (const zone of jobZones(job)) {
      const key = `${byRoot(job.method) ? 'root' : job.method} ${zone}`
      if (seen.has(key))
        throw new DomainError(
          'twice-by-hand',
          `${capital(areaWords([zone]))} would be done twice by hand in this sitting. Choose one way for it.`,
        )
      seen.add(key)
    }
}

/** True where a sitting takes place on the flat outlines of the body: nothing of it is planned on the head. */
export function isBodySitting(jobs: readonly Work[]): boolean {
  const planned = jobs.filter((j) => isPlanned(j.method))
  return planned.length > 0
    ? planned.every((j) => isBodyService(j.service))
    : jobs.every((j) => jobZones(j).every(isBody))
}

/** Who gets a home card: a client who brushes against the grain by the school that counts for them. */
import type { ClientPage, House, VisitPage } from '../../contract/types.ts'
import { exfoliatesBy } from '../../core/care/index.ts'
import { SERVICES } from '../../core/services/index.ts'
import { useSchools } from '../stations/useStation.ts'

export const NO_HOME_CARD =
  'By the school that counts for this client they do not brush against the grain, so there is no home card.'

export function useBrushes(page: ClientPage, house: House, visit: VisitPage): boolean {
  const schools = useSchools(page, house)
  const fuzz = visit.jobs.every((j) => SERVICES[j.service].family === 'fuzz')
  return exfoliatesBy(fuzz, page.client.skin, schools)?.startsWith('brush') === true
}

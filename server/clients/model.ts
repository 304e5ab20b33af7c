/** A client's history read from the database, for learning. */
import { Op } from 'sequelize'
import type { ServiceId } from '../../core/services.ts'
import type { ClientModel } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import type { ClientRow } from '../db/models.ts'
import { toHairReading } from '../visits/page.ts'
import { learnClient, type PastService } from './learn.ts'

/** Older services say little about today's skin and cost time to read. */
const SERVICES_LOOKED_AT = 60

/** Learns a client for a service from their latest visits. */
export async function clientModel(
  db: Database,
  client: ClientRow,
  service: ServiceId,
): Promise<ClientModel> {
  const [visits, hair] = await Promise.all([
    db.models.Visit.findAll({
      attributes: ['id', 'endedAtMs', 'loads'],
      where: { clientId: client.id, state: 'finished', service },
      order: [['endedAtMs', 'DESC']],
      limit: SERVICES_LOOKED_AT,
    }),
    db.models.HairReading.findAll({
      where: { clientId: client.id },
      order: [['atMs', 'DESC']],
      limit: 200,
    }),
  ])
  const answers = await db.models.SkinAnswer.findAll({
    where: { visitId: { [Op.in]: visits.map((v) => v.id) } },
  })
  const past: PastService[] = visits.map((v) => ({
    endedAtMs: v.endedAtMs!,
    loads: v.loads ?? {},
    answers: answers.filter((a) => a.visitId === v.id),
  }))
  return learnClient(client.skin, service, past, hair.map(toHairReading))
}

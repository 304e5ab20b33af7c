/** What the server answers, with what was entered since and is still on its way: shown as entered, whatever was reloaded. */
import type { ClientPage, VisitPage } from '../../contract/types.ts'
import { editedReadings } from '../../core/grain/index.ts'
import type { Write } from './outbox.ts'

type Lay = (page: VisitPage, body: never, write: Write) => Partial<VisitPage>

/** Parts of a visit that show at once what was tapped. */
const LAYS: Readonly<Record<string, Lay>> = {
  saveAsked: (_, body: VisitPage['asked']) => ({ asked: body }),
  saveNotes: (_, body: VisitPage['notes']) => ({ notes: body }),
  saveProducts: (_, body: { products: string[] }) => ({ products: body.products }),
  editReadings: (page, body: { remove: string[]; add: VisitPage['readings'] }) => ({
    readings: editedReadings(page.readings, {
      remove: page.readings.filter((r) => body.remove.includes(r.id)),
      add: body.add,
    }),
  }),
  saveSkinAnswer: (page, body: Omit<VisitPage['answers'][number], 'moment'>, { params }) => ({
    answers: [
      ...page.answers.filter((a) => a.moment !== params['moment']),
      { ...body, moment: params['moment'] as VisitPage['answers'][number]['moment'] },
    ],
  }),
}

export const withEntered = (page: VisitPage, waiting: readonly Write[]): VisitPage =>
  waiting
    .filter((w) => w.visitId === page.id)
    .reduce((shown, w) => ({ ...shown, ...LAYS[w.route]?.(shown, w.body as never, w) }), page)

export const withEnteredOfClient = (page: ClientPage, waiting: readonly Write[]): ClientPage =>
  waiting
    .filter((w) => w.clientId === page.client.id && w.route === 'changeClient')
    .reduce(
      (shown, w) => ({
        ...shown,
        client: { ...shown.client, ...(w.body as Partial<ClientPage['client']>) },
      }),
      page,
    )

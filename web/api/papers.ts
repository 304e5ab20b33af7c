/** Papers that the server takes a while to draw: told while they are made, given up on request, to be saved when they are there. */
import type { ParamsOf } from '../../contract/routes.ts'
import { endWorking, tellFailed, tellWorking } from '../ui/notices.ts'
import { saveFile } from '../ui/saveFile.ts'
import { address } from './call.ts'

export type Paper = 'report' | 'record'

const NAMES: Readonly<Record<Paper, string>> = {
  report: 'The report',
  record: 'The record with who looked at it',
}

/** Has a paper of a client drawn. Resolves when it is there, given up, or has failed. */
export async function drawPaper(
  paper: Paper,
  { id }: ParamsOf<'report'>,
  client: string,
): Promise<void> {
  const give = new AbortController()
  const key = `${paper}-${id}`
  const what = `${NAMES[paper]} of ${client}`
  tellWorking(key, `${what} is being drawn …`, () => give.abort())
  try {
    const answer = await fetch(address(paper, { id }), { signal: give.signal })
    if (!answer.ok) throw new Error(`${what} could not be drawn (${answer.status}).`)
    const file = await answer.blob()
    endWorking(key, {
      kind: 'done',
      words: `${what} is there.`,
      // To be saved, not shown here: the page's own policy lets nothing be embedded, papers neither.
      act: {
        words: 'Save',
        go: () => saveFile(`${client}, ${paper}.pdf`, file, 'application/pdf'),
      },
    })
  } catch (error) {
    endWorking(key)
    if (give.signal.aborted) return
    const why = error instanceof TypeError ? `${what}: the server does not answer.` : String(error)
    tellFailed(why.replace(/^Error: /, ''), () => void drawPaper(paper, { id }, client))
  }
}

/** @jest-environment jsdom */
import { act, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { notifications } from '@mantine/notifications'
import { NoticeBoard } from '../ui/NoticeBoard.tsx'
import { render } from '../testing/render.tsx'
import { drawPaper } from './papers.ts'

const user = userEvent.setup()
Object.assign(URL, { createObjectURL: () => 'blob:paper', revokeObjectURL: () => {} })

/** A server that answers when it is let, or is given up. */
function server() {
  let answer: (r: Partial<Response>) => void = () => {}
  let fail: (e: Error) => void = () => {}
  const asked: string[] = []
  globalThis.fetch = (input, init) =>
    new Promise<Response>((go, no) => {
      asked.push(input as string)
      answer = (r) => go(r as Response)
      fail = no
      init?.signal?.addEventListener('abort', () => no(new Error('aborted')))
    })
  return {
    asked,
    answer: (r: Partial<Response>) => act(() => answer(r)),
    fail: (e: Error) => act(() => fail(e)),
  }
}

describe('a paper that takes a while', () => {
  beforeEach(() => void render(<NoticeBoard />))
  afterEach(() => act(() => notifications.clean()))

  it('is told while it is drawn, and offered when it is there', async () => {
    const { asked, answer } = server()
    void drawPaper('report', { id: 'c1' }, 'Ada Reef')
    expect(await screen.findByText('The report of Ada Reef is being drawn …')).toBeTruthy()
    expect(asked).toEqual(['/api/clients/c1/report.pdf'])
    answer({ ok: true, blob: () => Promise.resolve(new Blob(['%PDF-'])) })
    expect(await screen.findByText('The report of Ada Reef is there.')).toBeTruthy()
    const saved: string[] = []
    HTMLAnchorElement.prototype.click = function () {
      saved.push(`${this.download} ${this.href}`)
    }
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(saved).toEqual(['Ada Reef, report.pdf blob:paper'])
  })

  it('given up it is gone, without a word of failure', async () => {
    server()
    void drawPaper('report', { id: 'c1' }, 'Ada Reef')
    await user.click(await screen.findByRole('button', { name: 'Stop' }))
    await waitFor(() => expect(screen.queryByText(/being drawn/)).toBeNull())
    expect(screen.queryByRole('alert')).toBeNull()
  })

  it('that failed says why, and is drawn once more when asked', async () => {
    const { asked, answer, fail } = server()
    void drawPaper('record', { id: 'c1' }, 'Ada Reef')
    await screen.findByText(/being drawn/)
    fail(new TypeError('Failed to fetch'))
    expect(await screen.findByText(/the server does not answer/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Try again' }))
    await waitFor(() => expect(asked).toHaveLength(2))
    answer({ ok: false, status: 503 })
    expect(await screen.findByText(/could not be drawn \(503\)/)).toBeTruthy()
  })
})

/**
 * What is told for a moment: what was done and can be undone, what failed and can be tried again, what takes a while and can
 * be stopped. What shows them is fetched apart.
 */

/** What can be done about it. */
export interface NoticeAct {
  readonly words: string
  readonly go: () => void
}

export interface Notice {
  /** One of the same id takes its place. */
  readonly id?: string
  readonly kind: 'done' | 'failed' | 'working'
  readonly words: string
  /** How far it is, 0 to 1; none where that is not known. */
  readonly share?: number | undefined
  readonly act?: NoticeAct | undefined
}

const board = () => import('./NoticeBoard.tsx')
const tell = (notice: Notice) => void board().then((b) => b.show(notice))

/** Done; `undo` takes it back. One of the same id takes its place. */
export const tellDone = (words: string, undo?: () => void, id?: string): void =>
  tell({
    ...{ kind: 'done', words, ...(id !== undefined && { id }) },
    ...(undo && { act: { words: 'Undo', go: undo } }),
  })

/** Failed, and why; `again` tries once more. */
export const tellFailed = (words: string, again?: () => void): void =>
  tell({ kind: 'failed', words, ...(again && { act: { words: 'Try again', go: again } }) })

/** Takes a while; stays until it is ended. `stop` gives it up. */
export const tellWorking = (id: string, words: string, stop?: () => void, share?: number): void =>
  tell({ id, kind: 'working', words, share, ...(stop && { act: { words: 'Stop', go: stop } }) })

/** Whatever was told under an id is over; told otherwise where there is more to say. */
export const endWorking = (id: string, told?: Omit<Notice, 'id'>): void =>
  void board().then((b) => (told ? b.show({ ...told, id }) : b.hide(id)))

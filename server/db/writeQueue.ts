/** Writes one at a time: many SQLite transactions at once starve the thread pool and mostly fail. */
export class WriteQueue {
  private tail: Promise<unknown> = Promise.resolve()

  /** Runs a write after all earlier ones have ended, whether they succeeded or not. */
  run<T>(write: () => Promise<T>): Promise<T> {
    const next = this.tail.then(write, write)
    this.tail = next.catch(() => undefined)
    return next
  }

  /** Resolves when everything queued so far has ended. */
  async drained(): Promise<void> {
    await this.tail
  }
}

/** What of the house's answers a screen keeps for when the house does not answer. */
export const KEPT_PAGES = 'slow-tide-pages'
/** Beside a kept answer: when the house gave it. */
export const KEPT_AT = 'X-Kept-At'

/** Pages, not papers, pictures, files or streams. */
const KEPT = [
  /^\/api\/(session|house|today|kit-events|messages)$/,
  /^\/api\/clients\/[^/]+(\/(tide|history))?$/,
  /^\/api\/visits\/[^/]+(\/care)?$/,
]

export const isKept = (pathname: string): boolean => KEPT.some((shape) => shape.test(pathname))

/** What was kept is somebody else's business now: whoever signs in next is asked for anew. */
export async function forgetKept(): Promise<void> {
  if (typeof caches !== 'undefined') await caches.delete(KEPT_PAGES)
}

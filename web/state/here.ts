/** Who is signed in at this screen, for what is sent in their name; null where nobody signs in. */
let workerId: string | null = null

export const setHere = (id: string | null): void => void (workerId = id)
export const hereNow = (): string | null => workerId

/** The bytes of the head, fetched once: apart from what draws them, so that they may be on their way before it is. */
import headUrl from '../../generated/head.bin?url'

let coming: Promise<ArrayBuffer> | undefined

/** @throws Error in words when they could not be fetched; asked again they are fetched anew */
export function headBytes(): Promise<ArrayBuffer> {
  coming ??= fetch(headUrl)
    .then((r) => {
      if (!r.ok) throw new Error('The head could not be loaded. Reload the page.')
      return r.arrayBuffer()
    })
    .catch((error: unknown) => {
      coming = undefined
      throw error
    })
  return coming
}

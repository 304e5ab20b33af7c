/** The text of a file whatever letters it was written in: UTF-8, UTF-16 of either order (spreadsheets), or Windows-1252. */

const starts = (bytes: Uint8Array, mark: readonly number[]) => mark.every((b, i) => bytes[i] === b)

/** UTF-16 without a mark: in text of any European language every second byte is nought. */
function halfNoughts(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | undefined {
  const look = bytes.subarray(0, 2000)
  const noughts = [0, 0]
  for (const [i, b] of look.entries()) if (b === 0) noughts[i % 2]!++
  const most = look.length / 5
  if (noughts[1]! > most && noughts[1]! > 4 * noughts[0]!) return 'utf-16le'
  if (noughts[0]! > most && noughts[0]! > 4 * noughts[1]!) return 'utf-16be'
  return undefined
}

/** @param bytes the whole file */
export function textOfFile(bytes: Uint8Array): string {
  const named = starts(bytes, [0xff, 0xfe])
    ? 'utf-16le'
    : starts(bytes, [0xfe, 0xff])
      ? 'utf-16be'
      : halfNoughts(bytes)
  if (named) return new TextDecoder(named).decode(bytes)
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}

/** Words as a sentence wants them. */

const LIST = new Intl.ListFormat('en-GB')

/** "a", "a and b", "a, b and c". */
export const listWords = (words: readonly string[]): string => LIST.format(words)

/** As it stands at the head of a sentence. */
export const capital = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1)

/** As it stands within a sentence. */
export const lowerFirst = (s: string): string => s.charAt(0).toLowerCase() + s.slice(1)

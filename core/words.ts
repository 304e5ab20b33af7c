/** Words as a sentence wants them. */

const LIST = new Intl.ListFormat('en-GB')

/** "a", "a and b", "a, b and c". */
export const listWords = (words: readonly string[]): string => LIST.format(words)

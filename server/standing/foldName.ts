/** A name as it is sorted and searched: without accents and capitals. */
export const foldName = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/\p{Mark}/gu, '')
    .toLowerCase()
    .trim()

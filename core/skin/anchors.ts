/** How each grade looks, on light and on dark skin (Clinician's Erythema Assessment, Tan et al. 2014, from memory; wording our own). */
export const REDNESS_WORDS = [
  ['clear', 'as the skin beside it'],
  ['almost clear', 'a breath of pink; on dark skin a faint warmer tone'],
  ['mild', 'pink; on dark skin a violet or deeper brown tone, a little warm'],
  ['moderate', 'red; on dark skin clearly darker or grey-violet, warm'],
  ['severe', 'fiery red, swollen; on dark skin dark violet, hot, swollen'],
] as const

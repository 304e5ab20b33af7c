/** The rooms of the house: where their pages are, and their names. */
export const ROOMS = [
  ['/', 'Today'],
  ['/clients', 'Clients'],
  ['/kit', 'Kit'],
  ['/practice', 'Practice'],
  ['/house', 'House'],
] as const

/** The rooms of the house: where their pages are, and their names. */
export const ROOMS = [
  ['/', 'Today'],
  ['/week', 'Week'],
  ['/clients', 'Clients'],
  ['/kit', 'Kit'],
  ['/practice', 'Practice'],
  ['/house', 'House'],
] as const

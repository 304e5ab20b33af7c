/** The colours of Slow Tide, once: the theme, the head, charts, pictures, PDF and the answer page take them from here. */

/** Light by day. */
export const LIGHT = {
  paper: '#F5F0E6',
  sand: '#E5DBC8',
  shell: '#FBF8F2',
  ink: '#17323B',
  soft: '#4E626A',
  deep: '#0D4656',
  tide: '#23707A',
  foam: '#CDE2DF',
  kelp: '#55612F',
  brass: '#8A6112',
  coral: '#B0432C',
  line: '#B9AF9C',
  onDeep: '#FBF8F2',
  /** Edges of controls: 3 : 1 on paper. */
  edge: '#857B68',
  /** Between the rows of a list. */
  hair: '#DDD3BF',
} as const

/** By lamp: a dim room. */
export const LAMP: Record<keyof typeof LIGHT, string> = {
  paper: '#10191D',
  sand: '#2A3A41',
  shell: '#1B282E',
  ink: '#E9E3D6',
  soft: '#A9B4B5',
  deep: '#7FC3CC',
  tide: '#6FB9C2',
  foam: '#21474D',
  kelp: '#A9BB7C',
  brass: '#DDB25C',
  coral: '#F08F79',
  line: '#46575E',
  onDeep: '#0C1417',
  edge: '#7F9096',
  hair: '#2C3B42',
}

type Ten = readonly [string, string, string, string, string, string, string, string, string, string]
/**
 * Each colour in ten steps from wash to ink: the accent by day is the ninth, by lamp the fourth. The neutral ones are paper
 * and slate.
 */
export const SCALES = {
  // prettier-ignore
  tide: ['#E6F2F1', '#CDE2DF', '#A5CDCB', '#7FC3CC', '#539EA4', '#358890', '#23707A', '#17606B', '#0D4656', '#093742'],
  // prettier-ignore
  coral: ['#FBEBE6', '#F3DDD2', '#E6B5A4', '#F08F79', '#D9765D', '#C65C43', '#BF4E36', '#B0432C', '#A23A25', '#7D2B1A'],
  // prettier-ignore
  brass: ['#FAF1DC', '#F0DFB8', '#E6C98A', '#DDB25C', '#C39638', '#A87B22', '#97701C', '#8A6112', '#7A550E', '#5C3F08'],
  // prettier-ignore
  kelp: ['#F0F3E6', '#DDE4C8', '#C3CFA0', '#A9BB7C', '#8C9F5A', '#728242', '#5C6B38', '#55612F', '#454F25', '#333B1A'],
  // prettier-ignore
  paper: ['#FBF8F2', '#F5F0E6', '#E5DBC8', '#DDD3BF', '#B9AF9C', '#857B68', '#6A7377', '#4E626A', '#2F474F', '#17323B'],
  // prettier-ignore
  slate: ['#E9E3D6', '#CFCFC6', '#A9B4B5', '#7F9096', '#46575E', '#2A3A41', '#1B282E', '#10191D', '#0C1417', '#080E10'],
} as const satisfies Record<string, Ten>

/** Six plain steps of skin tone, for reading redness only. */
// prettier-ignore
export const SKIN_TONES = ['#F3DECF', '#E6C3A5', '#CF9F78', '#A97650', '#7A4F35', '#4A3024'] as const

/** Over skin, on the drawn head and on paper: what it means, whatever the scheme. */
export const ON_SKIN = {
  /** Left out, kept off, worse. */
  coral: '#BF4E36',
  /** Worked, wet. */
  water: '#7FC6C6',
  /** Better, grown. */
  tide: '#2B7A82',
  /** Turned, dried, unsure. */
  brass: '#A87B22',
  /** Kept. */
  kelp: '#5C6B38',
  /** Borders between zones on paper. */
  border: '#9FABA8',
} as const

/** Redness 0 to 4: shell to coral in five steps, always with the figure. */
export const REDNESS_COLOURS = [
  LIGHT.shell,
  '#F3D9CC',
  '#E6AE9B',
  '#D5806A',
  ON_SKIN.coral,
] as const
/** The figure on such a colour. */
export const onRedness = (grade: number): string => (grade >= 4 ? LIGHT.shell : LIGHT.ink)

/** Density of hair, from sparse to dense. */
export const HAIR_TONES = [LIGHT.sand, '#7FB5B0', ON_SKIN.tide, LIGHT.deep] as const

/** How far two maps differ: little, some, much. */
export const TURN_COLOURS = [LIGHT.foam, '#D9B45E', ON_SKIN.coral] as const

/** The drawn head by day and by lamp. */
export const HEAD_BY_DAY = {
  plaster: '#F2E6D0',
  shade: '#B59F83',
  border: LIGHT.ink,
  hair: LIGHT.deep,
  stroke: ON_SKIN.tide,
  rub: '#8F661B',
  chosen: LIGHT.coral,
  hover: ON_SKIN.tide,
  held: ON_SKIN.coral,
} as const
export const HEAD_BY_LAMP: Record<keyof typeof HEAD_BY_DAY, string> = {
  plaster: '#A39B8C',
  shade: '#4C473F',
  border: '#0A1114',
  hair: '#0A2B35',
  stroke: '#17565D',
  rub: '#5F4310',
  chosen: '#A8341C',
  hover: '#D8E6E4',
  held: '#F0C8B8',
}

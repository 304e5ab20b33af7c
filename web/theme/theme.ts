/** The colours and faces of Slow Tide, as a Mantine theme with a light and a lamp scheme. */
import { createTheme, type CSSVariablesResolver, type MantineColorsTuple } from '@mantine/core'

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
}

const tide: MantineColorsTuple = [
  '#E6F2F1',
  '#CDE2DF',
  '#A5CDCB',
  '#7BB6B8',
  '#539EA4',
  '#358890',
  '#23707A',
  '#17606B',
  '#0D4656',
  '#093742',
]

export const theme = createTheme({
  colors: { tide },
  primaryColor: 'tide',
  primaryShade: { light: 8, dark: 3 },
  autoContrast: true,
  defaultRadius: 4,
  fontFamily: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
  headings: { fontFamily: "'Fraunces Variable', Georgia, serif", fontWeight: '600' },
  cursorType: 'pointer',
  focusRing: 'auto',
})

const variables = (tokens: Record<string, string>) =>
  Object.fromEntries(Object.entries(tokens).map(([name, value]) => [`--${name}`, value]))

const scheme = (tokens: Record<keyof typeof LIGHT, string>) => ({
  ...variables(tokens),
  '--mantine-color-body': tokens.paper,
  '--mantine-color-text': tokens.ink,
  '--mantine-color-dimmed': tokens.soft,
  '--mantine-color-default': tokens.shell,
  '--mantine-color-default-border': tokens.line,
  '--mantine-color-placeholder': tokens.soft,
  '--mantine-color-error': tokens.coral,
})

export const resolver: CSSVariablesResolver = () => ({
  variables: {},
  light: scheme(LIGHT),
  dark: scheme(LAMP),
})

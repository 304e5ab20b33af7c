/** The colours and faces of Slow Tide, as a Mantine theme with a light and a lamp scheme. */
import { createTheme, type CSSVariablesResolver } from '@mantine/core'
import { HEAD_BY_DAY, LAMP, LIGHT, ON_SKIN, TIDE_SCALE } from '../../core/palette.ts'

export const theme = createTheme({
  colors: { tide: TIDE_SCALE },
  primaryColor: 'tide',
  primaryShade: { light: 8, dark: 3 },
  autoContrast: true,
  defaultRadius: 4,
  fontFamily: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
  headings: { fontFamily: "'Fraunces Variable', Georgia, serif", fontWeight: '600' },
  cursorType: 'pointer',
  focusRing: 'auto',
  components: {
    // Square as all else, and large enough for a wet finger.
    Chip: {
      defaultProps: { radius: 4, variant: 'outline' },
      vars: () => ({ root: { '--chip-size': '44px', '--chip-fz': '15px' } }),
    },
    Pill: { defaultProps: { radius: 4, size: 'md' } },
  },
})

const named = (group: string, tokens: Record<string, string>) =>
  Object.fromEntries(Object.entries(tokens).map(([name, value]) => [`--${group}-${name}`, value]))

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
  // On skin and on paper a colour stays what it is by day.
  variables: {
    ...named('light', LIGHT),
    ...named('on-skin', { ...ON_SKIN, rub: HEAD_BY_DAY.rub }),
  },
  light: scheme(LIGHT),
  dark: scheme(LAMP),
})

/** Slow Tide on Mantine: paper and ink, and what is chosen stands over a line of tide. The colours are the palette's. */
import {
  createTheme,
  defaultVariantColorsResolver,
  Loader,
  type CSSVariablesResolver,
  type VariantColorsResolver,
} from '@mantine/core'
import type * as Core from '@mantine/core'
import { HEAD_BY_DAY, LAMP, LIGHT, ON_SKIN, SCALES } from '../../core/palette.ts'
import { TideLoader } from '../ui/TideLoader.tsx'
import act from './act.module.css'
import choice from './choice.module.css'
import field from './field.module.css'
import sheet from './sheet.module.css'
import slide from './slide.module.css'
import table from './table.module.css'

/** Acts of our own kinds; whatever else is asked for falls back to Mantine's. */
const variantColors: VariantColorsResolver = (input) => {
  switch (input.variant) {
    case 'strong':
      return {
        background: 'var(--deep)',
        hover: 'var(--tide)',
        color: 'var(--onDeep)',
        border: '1px solid transparent',
      }
    case 'line':
      return {
        background: 'transparent',
        hover: 'var(--sand)',
        color: 'var(--ink)',
        border: '1px solid var(--edge)',
      }
    case 'bare':
      return {
        background: 'transparent',
        hover: 'transparent',
        color: input.color === 'coral' ? 'var(--coral)' : 'var(--ink)',
        border: '1px solid transparent',
      }
    default:
      return defaultVariantColorsResolver(input)
  }
}

/**
 * A component of the theme. Called for by its name, with types alone: what a page does not draw is not loaded with the
 * first one.
 */
const part = <P>(p: {
  defaultProps?: Partial<P>
  classNames?: Record<string, string | undefined>
  vars?: () => Record<string, Record<string, string>>
  styles?: Record<string, React.CSSProperties>
}) => p

const veil = { color: LIGHT.ink, backgroundOpacity: 0.35 }
const close = { 'aria-label': 'Close' }

export const theme = createTheme({
  colors: {
    tide: SCALES.tide,
    red: SCALES.coral,
    coral: SCALES.coral,
    brass: SCALES.brass,
    kelp: SCALES.kelp,
    // Mantine draws its neutral parts from these two.
    gray: SCALES.paper,
    dark: SCALES.slate,
  },
  white: LIGHT.shell,
  black: LIGHT.ink,
  primaryColor: 'tide',
  primaryShade: { light: 8, dark: 3 },
  autoContrast: true,
  luminanceThreshold: 0.32,
  defaultRadius: 4,
  radius: { xs: '2px', sm: '4px', md: '4px', lg: '4px', xl: '4px' },
  shadows: { xs: 'none', sm: 'none', md: 'none', lg: 'none', xl: 'none' },
  spacing: { xs: '4px', sm: '8px', md: '12px', lg: '20px', xl: '28px' },
  fontSizes: { xs: '13px', sm: '15px', md: '16px', lg: '18px', xl: '22px' },
  lineHeights: { xs: '1.3', sm: '1.35', md: '1.4', lg: '1.4', xl: '1.3' },
  fontFamily: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
  fontFamilyMonospace: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
  headings: {
    fontFamily: "'Fraunces Variable', Georgia, serif",
    fontWeight: '600',
    sizes: {
      h1: { fontSize: '34px', lineHeight: '1.15' },
      h2: { fontSize: '25px', lineHeight: '1.2' },
      h3: { fontSize: '20px', lineHeight: '1.25' },
      h4: { fontSize: '17px', lineHeight: '1.3' },
    },
  },
  cursorType: 'pointer',
  focusRing: 'auto',
  focusClassName: 'tide-focus',
  respectReducedMotion: true,
  variantColorResolver: variantColors,
  components: {
    Button: part<Core.ButtonProps>({
      defaultProps: { variant: 'line', size: 'md' },
      classNames: { root: act.button, label: act.label, section: act.section },
    }),
    ActionIcon: part<Core.ActionIconProps>({
      defaultProps: { variant: 'bare', size: 44 },
      classNames: { root: act.icon },
    }),
    CloseButton: part<Core.CloseButtonProps>({ defaultProps: { size: 44, ...close } }),
    Anchor: part<Core.AnchorProps>({ defaultProps: { underline: 'always', c: 'var(--tide)' } }),
    Kbd: part<Core.KbdProps>({ defaultProps: { size: 'xs' }, classNames: { root: act.kbd } }),

    SegmentedControl: part<Core.SegmentedControlProps>({
      defaultProps: { withItemsBorders: false, transitionDuration: 120 },
      classNames: {
        root: choice.words,
        indicator: choice.waterline,
        control: choice.control,
        label: choice.word,
      },
    }),
    Tabs: part<Core.TabsProps>({
      defaultProps: { keepMounted: false, activateTabWithKeyboard: true },
      classNames: { list: choice.tabs, tab: choice.tab, tabLabel: choice.tabLabel },
    }),
    NavLink: part<Core.NavLinkProps>({
      defaultProps: { variant: 'bare' },
      classNames: {
        root: choice.nav,
        body: choice.navBody,
        label: choice.navLabel,
        description: choice.navSoft,
      },
    }),
    Chip: part<Core.ChipProps>({
      defaultProps: { size: 'md', variant: 'outline' },
      classNames: {
        root: choice.chip,
        label: choice.chipLabel,
        iconWrapper: choice.chipIcon,
        input: choice.chipInput,
      },
    }),
    Pill: part<Core.PillProps>({ defaultProps: { radius: 4, size: 'md' } }),
    Checkbox: part<Core.CheckboxProps>({
      defaultProps: { size: 'md', radius: 2 },
      classNames: {
        input: choice.box,
        icon: choice.tick,
        labelWrapper: choice.boxWords,
        body: choice.boxBody,
      },
    }),
    Radio: part<Core.RadioProps>({
      defaultProps: { size: 'md' },
      classNames: { labelWrapper: choice.boxWords, body: choice.boxBody },
    }),
    Switch: part<Core.SwitchProps>({
      defaultProps: { size: 'md', radius: 4, withThumbIndicator: false },
      classNames: { track: choice.track, thumb: choice.thumb },
    }),

    Input: part<Core.InputProps>({
      defaultProps: { size: 'md' },
      classNames: { input: field.input, section: field.section },
    }),
    InputWrapper: part<Core.InputWrapperProps>({
      classNames: { label: field.label, description: field.soft, error: field.error },
    }),
    NumberInput: part<Core.NumberInputProps>({ defaultProps: { hideControls: true } }),
    Select: part<Core.SelectProps>({
      defaultProps: {
        withCheckIcon: false,
        allowDeselect: false,
        comboboxProps: { offset: 4 },
        maxDropdownHeight: 320,
      },
      classNames: { option: field.option, dropdown: sheet.pop },
    }),
    PinInput: part<Core.PinInputProps>({
      defaultProps: { size: 'xl', gap: 14, placeholder: '', type: 'number', mask: true },
      vars: () => ({ root: { '--pin-input-size': '52px' } }),
      classNames: { input: field.pin, root: field.pins },
    }),

    // Dates draw a day under the name of the part that holds it, not under Day.
    DateInput: {
      defaultProps: {
        ariaLabels: { previousMonth: 'The month before', nextMonth: 'The month after' },
        popoverProps: { shadow: 'none' },
      },
      classNames: { day: choice.day },
    },
    Slider: part<Core.SliderProps>({
      defaultProps: { size: 2, thumbSize: 28, label: null },
      classNames: {
        root: slide.root,
        track: slide.track,
        bar: slide.bar,
        thumb: slide.thumb,
        mark: slide.mark,
        markLabel: slide.words,
      },
    }),
    RangeSlider: part<Core.RangeSliderProps>({
      defaultProps: { size: 2, thumbSize: 28, label: null, minRange: 1 },
      classNames: {
        root: slide.root,
        track: slide.day,
        bar: slide.open,
        thumb: slide.post,
        mark: slide.mark,
      },
    }),
    Progress: part<Core.ProgressProps>({ defaultProps: { size: 4, radius: 0 } }),

    Table: part<Core.TableProps>({
      defaultProps: { verticalSpacing: 0, horizontalSpacing: 0, tabularNums: true },
      classNames: { table: table.table, th: table.th, td: table.td, tr: table.tr },
    }),
    ScrollArea: part<Core.ScrollAreaProps>({
      defaultProps: { type: 'auto', scrollbarSize: 8, viewportProps: { tabIndex: 0 } },
    }),

    Popover: part<Core.PopoverProps>({
      defaultProps: { shadow: 'none', offset: 6, transitionProps: { duration: 90 } },
      classNames: { dropdown: sheet.pop },
    }),
    HoverCard: part<Core.HoverCardProps>({
      defaultProps: { shadow: 'none', openDelay: 200 },
      classNames: { dropdown: sheet.pop },
    }),
    Menu: part<Core.MenuProps>({
      defaultProps: { shadow: 'none', offset: 4, position: 'bottom-end' },
      classNames: { dropdown: sheet.pop, item: sheet.item },
    }),
    Tooltip: part<Core.TooltipProps>({
      defaultProps: { openDelay: 400, withArrow: false },
      classNames: { tooltip: sheet.tip },
    }),
    Modal: part<Core.ModalProps>({
      defaultProps: {
        closeButtonProps: close,
        centered: true,
        padding: 28,
        overlayProps: veil,
        transitionProps: { duration: 0 },
      },
      classNames: { content: sheet.content, header: sheet.sheetHead, title: sheet.title },
    }),
    ModalOverlay: part<Core.ModalOverlayProps>({ defaultProps: veil }),
    Drawer: part<Core.DrawerProps>({
      defaultProps: { closeButtonProps: close, overlayProps: veil },
      classNames: { content: sheet.content, title: sheet.title, header: sheet.head },
    }),
    DrawerOverlay: part<Core.DrawerOverlayProps>({ defaultProps: veil }),
    DrawerContent: part<Core.DrawerContentProps>({ classNames: { content: sheet.content } }),
    Alert: part<Core.AlertProps>({
      defaultProps: { variant: 'bare', p: 0 },
      classNames: { root: sheet.alert, title: sheet.alertTitle, message: sheet.alertWords },
    }),
    Notification: part<Core.NotificationProps>({
      defaultProps: { withBorder: false, closeButtonProps: close },
      classNames: {
        root: sheet.note,
        title: sheet.noteTitle,
        description: sheet.noteWords,
        closeButton: sheet.noteClose,
      },
    }),
    Skeleton: part<Core.SkeletonProps>({ defaultProps: { radius: 4 } }),
    Loader: Loader.extend({
      defaultProps: { loaders: { ...Loader.defaultLoaders, tide: TideLoader }, type: 'tide' },
    }),
  },
})

const named = (group: string, tokens: Record<string, string>) =>
  Object.fromEntries(Object.entries(tokens).map(([name, value]) => [`--${group}-${name}`, value]))

const scheme = (t: Record<keyof typeof LIGHT, string>) => ({
  ...Object.fromEntries(Object.entries(t).map(([name, value]) => [`--${name}`, value])),
  '--mantine-color-body': t.paper,
  '--mantine-color-text': t.ink,
  '--mantine-color-bright': t.ink,
  '--mantine-color-dimmed': t.soft,
  '--mantine-color-default': t.shell,
  '--mantine-color-default-hover': t.sand,
  '--mantine-color-default-color': t.ink,
  '--mantine-color-default-border': t.line,
  '--mantine-color-placeholder': t.soft,
  '--mantine-color-anchor': t.tide,
  '--mantine-color-error': t.coral,
  '--mantine-color-disabled': t.sand,
  '--mantine-color-disabled-color': t.soft,
  '--mantine-color-disabled-border': t.line,
})

export const resolver: CSSVariablesResolver = () => ({
  variables: {
    '--serif': "'Fraunces Variable', Georgia, serif",
    // On skin and on paper a colour stays what it is by day.
    ...named('light', LIGHT),
    ...named('on-skin', { ...ON_SKIN, rub: HEAD_BY_DAY.rub }),
  },
  light: scheme(LIGHT),
  dark: scheme(LAMP),
})

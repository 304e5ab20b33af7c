/** Blades. */
export {
  type Blade,
  BLADE_CONSTANTS,
  BLADE_IDS,
  type BladeId,
  BLADES,
  TOOL_WORDS,
  type Level,
  LEVELS,
} from './blades.ts'

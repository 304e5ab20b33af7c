/** Blades. */
export {
  type Blade,
  BLADE_CONSTANTS,
  BLADE_IDS,
  type BladeId,
  BLADES,
  type Level,
  LEVELS,
} from './blades.ts'

/**
 * The places of the body outside the head, one record each: what the trade knows of it, how the client lies for it, where hair
 * usually grows to before anyone has looked, and its outline laid flat on the sheet that core/body draws. Measures are house
 * estimates of a middling adult; the rest is common practice. A new place is one more record, added at the end: the order
 * numbers the sheet's mesh.
 */
import type { ZoneFacts } from './facts.ts'

/** A part laid flat: where its middle lies on the client's left, how long and how wide (above and below) it is, and how round. */
export interface Outline {
  readonly x: number
  readonly y: number
  readonly lengthMm: number
  readonly topMm: number
  readonly bottomMm: number
  /** Radius round the limb, mm; below 0 in a hollow. */
  readonly roundMm: number
}

/** Areas of the body as a client names them. */
export const BODY_AREAS = {
  arms: 'arms and underarms',
  legs: 'legs',
  front: 'shoulders, chest and belly',
  back: 'back',
} as const

export interface BodyZone extends ZoneFacts {
  readonly area: keyof typeof BODY_AREAS
  readonly outline: Outline
  /** How the client lies or what they do so that it meets the hand. */
  readonly turn: string
  /** What the client does while the blade is there; empty when nothing. */
  readonly action: string
  /** Hour on the clock face toward which hair usually grows on the client's left. */
  readonly guessHour: number
  /** The parts among which a client chooses. */
  readonly group: string
  /** Short strokes only. */
  readonly small?: boolean
}

const ON_BACK = 'Client lies on the back.'
const FACE_DOWN = 'Client lies face down.'

const limb = (
  name: string,
  bed: 'soft' | 'bony',
  stretch: string,
  area: BodyZone['area'],
  more: Pick<BodyZone, 'outline' | 'guessHour' | 'group'> &
    Partial<Pick<BodyZone, 'turn' | 'action' | 'watch' | 'stroke' | 'small' | 'hair'>>,
): BodyZone => ({
  name,
  hair: 'limb',
  bed,
  stretch,
  area,
  stroke: 'up or down the limb',
  watch: 'Moles, old bites, bumps.',
  turn: ON_BACK,
  action: '',
  ...more,
})

/** The trunk lies laid open like a coat cut along the spine: the chest in the middle, the back outside. */
const trunk = (
  name: string,
  stretch: string,
  area: 'front' | 'back',
  more: Pick<BodyZone, 'outline' | 'guessHour' | 'group'> &
    Partial<Pick<BodyZone, 'watch' | 'bed'>>,
): BodyZone => ({
  name,
  hair: 'limb',
  bed: 'soft',
  stretch,
  area,
  stroke: 'with the grain, in sections',
  watch: 'Moles: feel and look before the gel goes on.',
  turn: area === 'back' ? FACE_DOWN : ON_BACK,
  action: '',
  ...more,
})

const outline = (
  x: number,
  y: number,
  lengthMm: number,
  topMm: number,
  bottomMm: number,
  roundMm: number,
): Outline => ({ x, y, lengthMm, topMm, bottomMm, roundMm })

export const BODY = {
  'upper-arm': limb(
    'Upper arm',
    'soft',
    'Arm out and turned a little; skin drawn up to the shoulder.',
    'arms',
    { group: 'Arms', guessHour: 6, outline: outline(520, 130, 250, 130, 104, 46) },
  ),
  forearm: limb(
    'Forearm',
    'soft',
    'Fist closed, wrist straight; skin drawn up to the elbow.',
    'arms',
    { group: 'Arms', guessHour: 5, outline: outline(520, -156, 230, 104, 70, 38) },
  ),
  underarm: limb(
    'Underarm',
    'soft',
    'Arm up, hand behind the head; skin stretched flat both ways.',
    'arms',
    {
      hair: 'underarm',
      stroke: 'small sections: hair grows several ways here',
      watch: 'A hollow: stretch it flat. Bumps and old ingrown hairs.',
      turn: 'Arm up, hand behind the head.',
      small: true,
      group: 'Underarms',
      guessHour: 6,
      outline: outline(520, 352, 110, 70, 70, -60),
    },
  ),
  'thigh-front': limb('Thigh, front', 'soft', 'Leg straight; skin drawn up.', 'legs', {
    group: 'Thighs',
    guessHour: 6,
    outline: outline(105, 250, 340, 180, 140, 85),
  }),
  knee: limb(
    'Knee',
    'bony',
    'Knee bent a little, so that the skin lies flat over the bone.',
    'legs',
    {
      watch: 'Folds and bone: the first place for nicks on a leg.',
      action: 'Client bends the knee a little.',
      small: true,
      group: 'Lower legs',
      guessHour: 6,
      outline: outline(105, 5, 100, 130, 120, 50),
    },
  ),
  shin: limb('Shin', 'bony', 'Leg straight, foot forward; skin drawn aside off the bone.', 'legs', {
    watch: 'The edge of the shinbone: short strokes along it, never across it.',
    group: 'Lower legs',
    guessHour: 6.5,
    outline: outline(105, -232, 300, 120, 84, 45),
  }),
  'thigh-back': limb(
    'Thigh, back',
    'soft',
    'Client lies face down or stands turned; skin drawn up.',
    'legs',
    {
      turn: FACE_DOWN,
      group: 'Thighs',
      guessHour: 6,
      outline: outline(320, 250, 340, 180, 140, 85),
    },
  ),
  calf: limb('Calf', 'soft', 'Foot flat, muscle loose; skin drawn up.', 'legs', {
    turn: FACE_DOWN,
    group: 'Lower legs',
    guessHour: 6,
    outline: outline(320, -140, 360, 124, 76, 52),
  }),
  shoulder: trunk('Shoulder', 'Arm along the body; skin drawn up to the neck.', 'front', {
    bed: 'bony',
    group: 'Shoulders',
    guessHour: 4,
    outline: outline(92, -515, 90, 120, 150, 70),
  }),
  chest: trunk('Chest', 'Skin drawn aside to the armpit; a flat hand holds it.', 'front', {
    watch: 'The nipple is covered and kept off. Moles: feel and look before the gel goes on.',
    group: 'Chest',
    guessHour: 7,
    outline: outline(85, -685, 190, 160, 150, 160),
  }),
  belly: trunk('Belly', 'Client breathes in and holds; skin drawn up.', 'front', {
    watch: 'The navel: short strokes round it, away from it. Moles.',
    group: 'Belly',
    guessHour: 7,
    outline: outline(80, -900, 180, 145, 140, 170),
  }),
  'back-upper': trunk(
    'Upper back',
    'Shoulders loose, arms hanging; skin drawn up to the shoulder.',
    'back',
    {
      watch: 'Shoulder blade: short strokes over its edge. Moles that the client has never seen.',
      group: 'Back',
      guessHour: 5,
      outline: outline(272, -580, 230, 170, 160, 190),
    },
  ),
  'back-lower': trunk('Lower back', 'Skin drawn down to the hip with a flat hand.', 'back', {
    watch: 'The hollow of the spine: stretch it flat. Moles that the client has never seen.',
    group: 'Back',
    guessHour: 5,
    outline: outline(266, -825, 200, 150, 150, 200),
  }),
} as const satisfies Record<string, BodyZone>

export type BodyStem = keyof typeof BODY
export const BODY_STEMS = Object.keys(BODY) as BodyStem[]

/** The record of a part of the body. */
export const bodyZone = (stem: BodyStem): BodyZone => BODY[stem]

/** What lies up and down each part, as it stands on the sheet (common practice). */
export const BODY_ENDS: Readonly<Record<BodyStem, readonly [up: string, down: string]>> = {
  'upper-arm': ['the shoulder', 'the elbow'],
  forearm: ['the elbow', 'the wrist'],
  underarm: ['the inside of the arm', 'the ribs'],
  'thigh-front': ['the hip', 'the knee'],
  knee: ['the thigh', 'the shin'],
  shin: ['the knee', 'the ankle'],
  'thigh-back': ['the seat', 'the hollow of the knee'],
  calf: ['the hollow of the knee', 'the heel'],
  shoulder: ['the neck', 'the arm'],
  chest: ['the collarbone', 'the ribs'],
  belly: ['the ribs', 'the hips'],
  'back-upper': ['the neck', 'the waist'],
  'back-lower': ['the shoulder blades', 'the hips'],
}

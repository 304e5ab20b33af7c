/**
 * What the trade knows of each zone: its name, its usual hair, where hands go, what to watch. Common practice.
 */
import { BODY } from './body.ts'
import { type ZoneId, type ZoneStem, zoneStem, zoneSide } from './zones.ts'

/** Usual hair of a zone: fine fuzz, beard, scalp, brow, leg or arm, underarm, or none. */
export type HairKind = 'vellus' | 'beard' | 'scalp' | 'brow' | 'limb' | 'underarm' | 'none'

/** The trade's knowledge of a zone, the same on both sides. */
export interface ZoneFacts {
  /** Name without the side. */
  readonly name: string
  /** Hair to expect on an adult who grows a beard; on others the beard zones carry fuzz. */
  readonly hair: HairKind
  /** Soft skin gives way under the blade; bony places do not. */
  readonly bed: 'soft' | 'bony'
  /** Where the free hand goes and what the client does. */
  readonly stretch: string
  /** Usual stroke of the trade. */
  readonly stroke: string
  /** What to watch. */
  readonly watch: string
}

const facts = (
  name: string,
  hair: HairKind,
  bed: 'soft' | 'bony',
  stretch: string,
  stroke: string,
  watch: string,
): ZoneFacts => ({ name, hair, bed, stretch, stroke, watch })

const FOREHEAD = facts(
  'Forehead',
  'vellus',
  'bony',
  'Two fingers spread the skin; the stroke runs on the line between them, never over them.',
  'small sections, lift between sections',
  'Stay off the hairline. Do not chase baby hair.',
)
const NECK_UPPER = facts(
  'Upper neck',
  'beard',
  'soft',
  'Head back; skin drawn down and taut, only lightly on a bump-prone neck.',
  'with the grain: it changes several times',
  'The grain changes here. Look for old eczema and bumps.',
)
const NECK_LOWER = facts(
  'Lower neck',
  'beard',
  'soft',
  'Head back; skin drawn down, only lightly on a bump-prone neck.',
  'with the grain: often upward here',
  'The grain often runs up here. Look for bumps.',
)
const UNDER_CHIN = facts(
  'Under the chin',
  'beard',
  'soft',
  'Head back; skin drawn down and taut, only lightly on a bump-prone neck.',
  'with the grain, forward or back from the parting',
  'The grain parts here: check both sides of the line.',
)
const NAPE = facts(
  'Nape',
  'scalp',
  'soft',
  'Client nods; skin drawn up from the collar.',
  'down, toward the middle',
  'Grain runs to the middle; bumps gather here.',
)
const SCALP_WATCH = 'Moles, scabs, scars and bony ridges: on a first visit check by hand.'
const SCALP_STRETCH = 'Skin stretched between two fingers; the client tilts the head.'
const scalpZone = (name: string) =>
  facts(name, 'scalp', 'bony', SCALP_STRETCH, 'across, one pass', SCALP_WATCH)
const NO_SKIN = (name: string) => facts(name, 'none', 'soft', '', '', '')

export const ZONE_FACTS: Readonly<Record<ZoneStem, ZoneFacts>> = {
  forehead: FOREHEAD,
  'forehead-centre': { ...FOREHEAD, name: 'Forehead, middle' },
  temple: facts(
    'Temple',
    'vellus',
    'bony',
    'Hold kept hair back; skin drawn up and back.',
    'down or toward the centre of the face',
    'Keep the sideburn unless asked: shaved temples look odd.',
  ),
  glabella: facts(
    'Between the brows',
    'vellus',
    'bony',
    'One brow pulled aside.',
    'down or sideways',
    'Brow edge.',
  ),
  brow: facts(
    'Brow',
    'brow',
    'bony',
    'A finger covers what must stay; lid held.',
    'short, small blade',
    'Lashes and the shape of the brow.',
  ),
  'under-eye': facts(
    'Under the eye',
    'vellus',
    'soft',
    'Very light hold; small blade, small strokes.',
    'down and out',
    'The thinnest skin of the face.',
  ),
  'nose-bridge': facts(
    'Nose bridge',
    'vellus',
    'bony',
    'Skin held tight across.',
    'small strokes, done on their own',
    'Overdoing it burns hours later.',
  ),
  'nose-side': facts(
    'Side of the nose',
    'vellus',
    'bony',
    'Press the nose aside; skin held tight.',
    'small strokes, stop short of the fold',
    'Overdoing it burns hours later.',
  ),
  'nose-tip': facts(
    'Nose tip',
    'vellus',
    'bony',
    'Skin held tight across.',
    'small strokes',
    'Tight curve: a small blade only.',
  ),
  'cheek-upper': facts(
    'Upper cheek',
    'vellus',
    'soft',
    'Skin back toward the ear.',
    'down',
    'Missed hair high on the cheek.',
  ),
  'cheek-lower': facts(
    'Lower cheek',
    'beard',
    'soft',
    'Skin back toward the ear. The flattest place: start here.',
    'down',
    'Hollow cheeks: the client puffs.',
  ),
  sideburn: facts(
    'Sideburn',
    'beard',
    'bony',
    'Hold kept hair back; skin drawn up and back.',
    'down',
    'The sideburn is kept unless asked.',
  ),
  'upper-lip': facts(
    'Upper lip',
    'beard',
    'soft',
    'Client draws the lip over the teeth, or puts the tongue behind it.',
    'sideways or slanted for a beard; down for fuzz',
    'With the chin the hardest to soften.',
  ),
  'mouth-corner': facts(
    'Mouth corner',
    'beard',
    'soft',
    'Client opens the mouth, head turned.',
    'small strokes',
    'The fold.',
  ),
  'under-lip': facts(
    'Under the lip',
    'beard',
    'soft',
    'Client rolls the lip in or draws it down.',
    'down',
    'The fold under the lip.',
  ),
  chin: facts(
    'Chin',
    'beard',
    'bony',
    'Skin pulled up over the bone.',
    'small sections all round',
    'The first place for nicks.',
  ),
  jaw: facts(
    'Jaw',
    'beard',
    'bony',
    'Skin pulled up over the bone so that the blade works on flat.',
    'along or over the bone',
    'Edge of the bone; missed patches below it.',
  ),
  'under-chin': UNDER_CHIN,
  'under-chin-centre': { ...UNDER_CHIN, name: 'Under the chin, middle' },
  'neck-upper': NECK_UPPER,
  'neck-upper-centre': {
    ...NECK_UPPER,
    name: 'Upper neck, middle',
    watch: 'Windpipe: the client swallows, then holds still.',
  },
  'neck-lower': NECK_LOWER,
  'neck-lower-centre': { ...NECK_LOWER, name: 'Lower neck, middle' },
  nape: NAPE,
  'nape-centre': { ...NAPE, name: 'Nape, middle' },
  'neck-back': facts(
    'Back of the neck',
    'vellus',
    'soft',
    'Client nods; skin drawn down.',
    'down',
    'Usually only tidied at the neckline.',
  ),
  'scalp-front': scalpZone('Front of the scalp'),
  'scalp-mid': scalpZone('Top of the scalp'),
  'scalp-crown': {
    ...scalpZone('Crown'),
    watch: 'The grain turns round the crown. ' + SCALP_WATCH,
  },
  'scalp-side': scalpZone('Side of the scalp'),
  'scalp-behind-ear': {
    ...scalpZone('Behind the ear'),
    bed: 'soft',
    watch: 'Hold the ear forward. ' + SCALP_WATCH,
  },
  occiput: scalpZone('Back of the scalp'),
  ...BODY,
  eye: NO_SKIN('Eye'),
  ear: NO_SKIN('Ear'),
  lips: NO_SKIN('Lips'),
  base: NO_SKIN('Base'),
}

/** Name without the side: "Lower neck". */
export const zoneBase = (id: ZoneId): string => ZONE_FACTS[zoneStem(id)].name

/** Full name with the client's side: "Lower neck, client's left". */
export function zoneName(id: ZoneId): string {
  const side = zoneSide(id)
  return side ? `${zoneBase(id)}, client's ${side}` : zoneBase(id)
}

/** A zone within a sentence, where a comma would part it: "jaw (client's left)", "upper neck (middle)". */
export function zoneInWords(id: ZoneId): string {
  const [place, ...which] = zoneName(id).toLowerCase().split(', ')
  return which.length > 0 ? `${place} (${which.join(', ')})` : place!
}

/** Names that say what a place lies beside. */
const BESIDE = /^(under|behind|between) /

/** "the chin", "the skin under the chin". */
export function theZone(id: ZoneId): string {
  const words = zoneInWords(id)
  return BESIDE.test(words) ? `the skin ${words}` : `the ${words}`
}

/** "on the chin", "under the chin". */
export function onZone(id: ZoneId): string {
  const words = zoneInWords(id)
  return BESIDE.test(words) ? words : `on the ${words}`
}

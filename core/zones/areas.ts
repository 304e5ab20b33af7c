/** Areas: zones that are worked alike, both sides and the middle together, so that a plan can be told in a sentence. */
import { type ZoneStem } from './zones.ts'

/** One area with its zones; its name reads after "on". */
export interface Area {
  readonly name: string
  readonly stems: readonly ZoneStem[]
}

const area = (name: string, ...stems: ZoneStem[]): Area => ({ name, stems })

/** Every area of head and body, from above to below. */
export const AREAS_WORKED: readonly Area[] = [
  area('the top of the head', 'scalp-front', 'scalp-mid'),
  area('the crown', 'scalp-crown'),
  area('the sides of the head', 'scalp-side'),
  area('the skin behind the ears', 'scalp-behind-ear'),
  area('the back of the head', 'occiput'),
  area('the nape', 'nape', 'nape-centre', 'neck-back'),
  area('the forehead', 'forehead', 'forehead-centre', 'temple'),
  area('the brows', 'brow', 'glabella'),
  area('the nose', 'nose-bridge', 'nose-side', 'nose-tip'),
  area('the skin under the eyes', 'under-eye'),
  area('the cheeks', 'cheek-upper', 'cheek-lower'),
  area('the sideburns', 'sideburn'),
  area('the lip', 'upper-lip', 'mouth-corner'),
  area('the chin', 'chin', 'under-lip'),
  area('the jaw', 'jaw'),
  area('the skin under the chin', 'under-chin', 'under-chin-centre'),
  area('the upper neck', 'neck-upper', 'neck-upper-centre'),
  area('the lower neck', 'neck-lower', 'neck-lower-centre'),
  area('the underarms', 'underarm'),
  area('the upper arms', 'upper-arm'),
  area('the forearms', 'forearm'),
  area('the thighs', 'thigh-front', 'thigh-back'),
  area('the knees', 'knee'),
  area('the lower legs', 'shin', 'calf'),
  area('the shoulders', 'shoulder'),
  area('the chest', 'chest'),
  area('the belly', 'belly'),
  area('the back', 'back-upper', 'back-lower'),
]

const BY_STEM = new Map(AREAS_WORKED.flatMap((a) => a.stems.map((s) => [s, a] as const)))

/** The area of a zone. */
export const areaOf = (stem: ZoneStem): Area => BY_STEM.get(stem) ?? area(stem, stem)

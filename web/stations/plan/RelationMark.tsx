/** With, across, against: the arrow with its bars, and the words. */
import { RELATION_WORDS, type Relation } from '../../../core/grain/index.ts'
import css from './Plan.module.css'
import { Arrow } from '../../head/Overlay.tsx'

export function RelationMark({ relation, words = true }: { relation: Relation; words?: boolean }) {
  return (
    <span className={css.relation} data-of={relation}>
      <svg width="30" height="16" viewBox="0 0 30 16" aria-hidden>
        <Arrow
          way={[
            { x: 1, y: 8 },
            { x: 29, y: 8 },
          ]}
          kind={relation}
          width={2.6}
        />
      </svg>
      {words ? (
        RELATION_WORDS[relation].replace(' the grain', '')
      ) : (
        <span className="hidden">{RELATION_WORDS[relation]}</span>
      )}
    </span>
  )
}

/** The named views, and the keys that show them. */
import { VIEW_IDS, VIEWS, type ViewId } from '../../core/head/index.ts'
import type { ShortcutId } from '../keys/shortcuts.ts'
import { useView } from '../state/view.ts'
import { Act } from '../ui/Act.tsx'

const KEYS: Readonly<Record<ViewId, ShortcutId>> = {
  front: 'view-front',
  left: 'view-left',
  right: 'view-right',
  underChin: 'view-under-chin',
  crown: 'view-crown',
  nape: 'view-nape',
}

export function ViewKeys() {
  const named = useView((s) => s.named)
  const show = useView((s) => s.show)
  return (
    <div role="group" aria-label="Views of the head">
      {VIEW_IDS.map((id) => (
        <Act key={id} k={KEYS[id]} pressed={named === id} onAct={() => show(id)}>
          {VIEWS[id].name}
        </Act>
      ))}
    </div>
  )
}

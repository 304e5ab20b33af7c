/** The named views, and the keys that show them. */
import { useHotkeys } from '@mantine/hooks'
import { VIEW_IDS, VIEWS } from '../../core/head/index.ts'
import { useView } from '../state/view.ts'

export function ViewKeys() {
  const named = useView((s) => s.named)
  const show = useView((s) => s.show)
  useHotkeys(VIEW_IDS.map((id) => [String(VIEWS[id].key), () => show(id)]))
  return (
    <div className="view-keys" role="group" aria-label="Views of the head">
      {VIEW_IDS.map((id) => (
        <button key={id} aria-pressed={named === id} onClick={() => show(id)}>
          <kbd>{VIEWS[id].key}</kbd>
          <span>{VIEWS[id].name}</span>
        </button>
      ))}
    </div>
  )
}

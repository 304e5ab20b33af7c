/** The patch test: planned, placed on a spot of the head, read from when until when, what it showed. */
import { Button, Group, Text } from '@mantine/core'
import { useFigures } from '../../state/figures.ts'
import { zoneName, isSkin, type ZoneId } from '../../../core/zones/index.ts'
import { patchWindow, type Asked } from '../../../core/screening/index.ts'
import { addDays, dayWords, whenWords } from '../../../core/time/index.ts'
import { useHead } from '../../head/loadHead.ts'
import { useView } from '../../state/view.ts'
import { todayIso } from '../../state/words.ts'
import { DateField } from '../../ui/DateField.tsx'
import { Words } from '../../ui/Words.tsx'
import type { Change } from './Questions.tsx'

/** Where nobody sees it and the skin is like that of the face (common practice). */
const USUAL: ZoneId = 'jaw-left'

export function PatchTest({
  asked,
  frozen,
  onChange,
}: {
  asked: Asked
  frozen: boolean
  onChange: Change
}) {
  const figures = useFigures()
  const chosen = useView((s) => s.chosen)
  const head = useHead()
  const zoneId = chosen && isSkin(chosen) ? chosen : USUAL
  const at = head.data?.zoneById.get(zoneId)?.centre
  const test = asked.patchTest
  const place = { zoneId, ...(at && { point: at.point, normal: at.normal }) }
  const set = (patchTest: Asked['patchTest']) => onChange(() => ({ patchTest }))
  const placeNow = (on = place) => set({ ...on, placedAtMs: Date.now(), result: 'waiting' })
  if (!test) {
    return (
      <Group gap="md" mih={52}>
        <Text size="sm">
          Patch test on {zoneName(zoneId).toLowerCase()}{' '}
          <small>(choose another zone on the head)</small>
        </Text>
        <Button size="sm" disabled={frozen} onClick={() => placeNow()}>
          Place it now
        </Button>
        <DateField
          aria-label="or plan it for"
          placeholder="or plan it for …"
          w={170}
          minDate={todayIso()}
          disabled={frozen}
          value={undefined}
          onChange={(day) => day && set({ ...place, plannedFor: day, result: 'planned' })}
        />
      </Group>
    )
  }
  const { zoneId: on, point, normal } = test
  const again = { zoneId: on, ...(point && { point }), ...(normal && { normal }) }
  if (test.result === 'planned') {
    return (
      <Group gap="md" mih={52}>
        <Text size="sm">
          Patch test on {zoneName(on).toLowerCase()}, planned for{' '}
          {dayWords(test.plannedFor ?? addDays(todayIso(), 1), todayIso())}:
        </Text>
        <Button size="sm" disabled={frozen} onClick={() => placeNow(again)}>
          Placed now
        </Button>
        <Button variant="bare" size="sm" disabled={frozen} onClick={() => set(undefined)}>
          Another day
        </Button>
      </Group>
    )
  }
  const window = patchWindow(figures, test)
  const now = Date.now()
  // A slip of the finger is put right: what was called a reaction too, inside the hours.
  const readable =
    test.result === 'calm' ||
    (window !== undefined && now >= window.fromMs && now <= window.untilMs)
  return (
    <Group gap="md" mih={52}>
      <Text size="sm">
        Patch test, {zoneName(on).toLowerCase()}
        {test.placedAtMs !== undefined && `, ${whenWords(test.placedAtMs)}`}
        {window && `; read ${whenWords(window.fromMs)} to ${whenWords(window.untilMs)}`}:
      </Text>
      <Words
        label="What the patch test shows"
        data={(['waiting', 'calm', 'reacted'] as const).map((result) => ({
          value: result,
          label: result,
          disabled: result === 'calm' && !readable,
        }))}
        value={test.result}
        disabled={frozen}
        onChange={(result) => {
          const { readAtMs: _read, ...rest } = test
          set({ ...rest, result, ...(result !== 'waiting' && { readAtMs: Date.now() }) })
        }}
      />
      {!readable && test.result !== 'reacted' && (
        <Text size="sm" c="dimmed">
          {window && window.untilMs < Date.now()
            ? 'Too late to call it calm: place another.'
            : 'Calm is told inside these hours only; a reaction at any time.'}
        </Text>
      )}
      {test.result === 'waiting' && (
        <Button variant="bare" size="sm" disabled={frozen} onClick={() => placeNow(again)}>
          Place another
        </Button>
      )}
    </Group>
  )
}

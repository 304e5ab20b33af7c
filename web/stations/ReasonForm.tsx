/** A worker's word: what they saw or did, and why; kept with their name and the hour. */
import { focusWrong } from '../ui/focusWrong.ts'
import { Button, Group, TextInput } from '@mantine/core'
import { useForm } from '@mantine/form'
import type { ReactNode } from 'react'
import { LEAST_REASON } from '../../core/visit/index.ts'
import { useDecide } from '../api/visitWrites.ts'
import { newId } from '../state/words.ts'
import css from './Findings.module.css'

export function ReasonForm({
  visitId,
  workerId,
  finding,
  label,
  description,
  act,
  barred = false,
  focused = false,
  onLeave,
}: {
  visitId: string
  workerId: string
  /** Id of the finding that it lifts. */
  finding: string
  label: ReactNode
  description: string
  act: string
  /** Whether this worker may not. */
  barred?: boolean
  focused?: boolean
  /** Told when it is done, and when it is left be. */
  onLeave?: (() => void) | undefined
}) {
  const decide = useDecide(visitId)
  const form = useForm({
    initialValues: { reason: '' },
    transformValues: ({ reason }) => ({ reason: reason.trim() }),
    validate: {
      reason: (said) =>
        said.trim().length < LEAST_REASON ? 'A few words more: what was seen, and why.' : null,
    },
  })
  const keep = form.onSubmit(
    ({ reason }) =>
      decide.mutate(
        { id: newId(), finding, workerId, reason },
        {
          onSuccess: () => onLeave?.(),
          onError: (error) => form.setFieldError('reason', error.message),
        },
      ),
    focusWrong(form),
  )
  return (
    <form className={css.decide} onSubmit={keep}>
      <TextInput
        label={label}
        description={description}
        maxLength={300}
        autoFocus={focused}
        disabled={barred}
        {...form.getInputProps('reason')}
      />
      <Group gap="sm">
        <Button type="submit" disabled={barred} loading={decide.isPending}>
          {act}
        </Button>
        {onLeave && (
          <Button variant="bare" onClick={onLeave}>
            Not now
          </Button>
        )}
      </Group>
    </form>
  )
}

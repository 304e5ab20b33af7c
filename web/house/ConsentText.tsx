/** The text that clients sign: the house's own, or the product's. */
import { Button, Group, Textarea } from '@mantine/core'
import { useForm } from '@mantine/form'
import { consentText } from '../../core/screening/index.ts'
import { SERVICE_IDS, oneJob } from '../../core/services/index.ts'
import { useLeaveAsks } from '../ui/useLeaveAsks.ts'

export function ConsentText({
  text,
  onChange,
}: {
  text: string
  onChange: (text: string) => void
}) {
  const form = useForm({ initialValues: { text } })
  useLeaveAsks(form.isDirty())
  return (
    <form onSubmit={form.onSubmit(({ text }) => onChange(text.trim()))}>
      <Textarea
        autosize
        minRows={9}
        maxLength={6000}
        aria-label="Text of consent"
        placeholder={consentText([oneJob('', SERVICE_IDS[0]!)])}
        {...form.getInputProps('text')}
      />
      <Group gap="sm" mt="sm">
        <Button variant="strong" type="submit" disabled={form.values.text.trim() === text}>
          Use this text
        </Button>
        {text !== '' && <Button onClick={() => onChange('')}>Back to the default</Button>}
      </Group>
    </form>
  )
}

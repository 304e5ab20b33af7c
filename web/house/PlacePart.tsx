/** What the house is called and where it is found: on care sheets, cards and in messages. */
import { focusWrong } from '../ui/focusWrong.ts'
import { Button, Group, Stack, TextInput } from '@mantine/core'
import { useForm } from '@mantine/form'
import { yupResolver } from 'mantine-form-yup-resolver'
import { houseChangeSchema } from '../../contract/schemas.ts'
import { CURRENCIES } from '../../core/house/index.ts'
import { named, PickOne } from '../ui/PickOne.tsx'
import { useLeaveAsks } from '../ui/useLeaveAsks.ts'
import type { PartProps } from './HousePage.tsx'

export function PlacePart({ house, change }: PartProps) {
  const { address, phone, currency } = house.settings
  const form = useForm({
    initialValues: { name: house.name, settings: { address, phone, currency } },
    validate: yupResolver(houseChangeSchema),
  })
  useLeaveAsks(form.isDirty())
  return (
    <form
      onSubmit={form.onSubmit(
        (values) => change.mutate(values, { onSuccess: () => form.resetDirty() }),
        focusWrong(form),
      )}
    >
      <Stack gap="md" maw={520}>
        <TextInput label="Name of the house" maxLength={80} {...form.getInputProps('name')} />
        <TextInput label="Address" maxLength={200} {...form.getInputProps('settings.address')} />
        <TextInput
          label="Telephone"
          type="tel"
          maxLength={40}
          {...form.getInputProps('settings.phone')}
        />
        <PickOne
          label="Currency"
          w={160}
          data={named(CURRENCIES, (c) => c)}
          value={form.values.settings.currency}
          onChange={(c) => form.setFieldValue('settings.currency', c)}
        />
        <Group>
          <Button
            variant="strong"
            type="submit"
            disabled={!form.isDirty()}
            loading={change.isPending}
          >
            Keep
          </Button>
        </Group>
      </Stack>
    </form>
  )
}

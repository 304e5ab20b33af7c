/** A new screen is let in: by the code that the owner shows. */
import { focusWrong } from '../ui/focusWrong.ts'
import { Button, Stack, Text, TextInput } from '@mantine/core'
import { useForm } from '@mantine/form'
import { yupResolver } from 'mantine-form-yup-resolver'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate, useSearchParams } from 'react-router'
import { pairSchema } from '../../contract/people.ts'
import { call } from '../api/call.ts'
import { DoorFrame } from './DoorFrame.tsx'

export function PairPage() {
  const [search] = useSearchParams()
  const form = useForm({
    initialValues: { code: search.get('code') ?? '' },
    validate: yupResolver(pairSchema),
  })
  const navigate = useNavigate()
  const cache = useQueryClient()
  const pair = useMutation({
    mutationFn: (body: { code: string }) => call('pairScreen', { body }),
    onError: (error) => form.setFieldError('code', error.message),
    onSuccess: async ({ kind }) => {
      await cache.invalidateQueries()
      await navigate(kind === 'wall' ? '/wall' : '/')
    },
  })
  return (
    <DoorFrame house="A new screen" under="The owner finds its code at House, Screens.">
      <form onSubmit={form.onSubmit((typed) => pair.mutate(typed), focusWrong(form))}>
        <Stack>
          <TextInput
            label="Code"
            size="lg"
            maxLength={20}
            autoFocus
            autoCapitalize="characters"
            {...form.getInputProps('code')}
          />
          <Button type="submit" variant="strong" loading={pair.isPending}>
            Let this screen in
          </Button>
          <Text c="dimmed" size="sm">
            A code opens once and for ten minutes. What is let in stays let in until the owner takes
            it back.
          </Text>
        </Stack>
      </form>
    </DoorFrame>
  )
}

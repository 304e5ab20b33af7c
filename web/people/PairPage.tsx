/** A new screen is let in: by the code that the owner shows. */
import { Button, Stack, Text, TextInput } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { call } from '../api/call.ts'
import { DoorFrame } from './DoorFrame.tsx'

export function PairPage() {
  const [search] = useSearchParams()
  const [code, setCode] = useState(search.get('code') ?? '')
  const navigate = useNavigate()
  const cache = useQueryClient()
  const pair = useMutation({
    mutationFn: () => call('pairScreen', { body: { code } }),
    onSuccess: async ({ kind }) => {
      await cache.invalidateQueries()
      await navigate(kind === 'wall' ? '/wall' : '/')
    },
  })
  return (
    <DoorFrame house="A new screen" under="The owner finds its code at House, Screens.">
      <form
        onSubmit={(e) => {
          e.preventDefault()
          pair.mutate()
        }}
      >
        <Stack>
          <TextInput
            label="Code"
            size="lg"
            value={code}
            maxLength={20}
            autoFocus
            autoCapitalize="characters"
            error={pair.error?.message}
            onChange={(e) => setCode(e.currentTarget.value)}
          />
          <Button
            type="submit"
            variant="strong"
            disabled={code.trim() === ''}
            loading={pair.isPending}
          >
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

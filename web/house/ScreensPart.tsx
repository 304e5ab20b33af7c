/** Screens of other machines: how they are let in, and which are. */
import { Button, Code, Group, Stack, Table, Text, TextInput, Title } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { Screens } from '../../contract/types.ts'
import { timeWords, whenWords } from '../../core/time/index.ts'
import css from './House.module.css'
import { call } from '../api/call.ts'

export function ScreensPart() {
  const cache = useQueryClient()
  const screens = useQuery({
    queryKey: ['screens'],
    queryFn: () => call('screens'),
    refetchInterval: 5000,
  })
  const keep = { onSuccess: (told: Screens) => cache.setQueryData(['screens'], told) }
  const pair = useMutation({
    mutationFn: (kind: 'tablet' | 'wall') =>
      call('newPairing', {
        body: { name: name.trim() || (kind === 'wall' ? 'Wall' : 'Tablet'), kind },
      }),
    ...keep,
  })
  const change = useMutation({
    mutationFn: (id: string) => call('changeScreen', { params: { id }, body: { takenBack: true } }),
    ...keep,
  })
  const [name, setName] = useState('')
  const problem = screens.error ?? pair.error ?? change.error
  const told = screens.data
  if (!told) return problem ? <p role="alert">{problem.message}</p> : <p role="status">Looking …</p>
  const { lan, pairing } = told
  return (
    <Stack gap="lg">
      {problem && (
        <Text role="alert" c="red">
          {problem.message}
        </Text>
      )}
      {lan ? (
        <div>
          <Text>
            Other machines reach this house at <b>{lan.url}</b>. A new one first takes the house’s
            certificate at <b>{lan.trustUrl}</b>, where each system’s steps stand.
          </Text>
          <Text mt="xs">Its fingerprint, to compare there:</Text>
          <Code block>{lan.fingerprint}</Code>
        </div>
      ) : (
        <Text>
          This house is reached from this machine only. To let tablets and a screen on the wall in,
          stop Slow Tide and type <code>npm start -- --lan</code>: what goes between is locked
          (HTTPS) by a certificate that is made here.
        </Text>
      )}
      {lan && (
        <Group align="flex-end">
          <TextInput
            label="What is it called?"
            placeholder="Left chair"
            value={name}
            maxLength={60}
            onChange={(e) => setName(e.currentTarget.value)}
          />
          <Button onClick={() => pair.mutate('tablet')}>Let a tablet in</Button>
          <Button onClick={() => pair.mutate('wall')}>Let a wall in</Button>
        </Group>
      )}
      {pairing && (
        <Group align="flex-start" gap="xl">
          <img
            className={css.code}
            alt={`The address ${pairing.url} as a picture`}
            src={`data:image/svg+xml,${encodeURIComponent(pairing.qr)}`}
          />
          <div>
            <Text c="dimmed">Code for {pairing.name}</Text>
            <Text className={css.sign}>{pairing.code}</Text>
            <Text>
              Opens once, until {timeWords(pairing.untilMs)}. On the new screen:{' '}
              {pairing.url.split('?')[0]}
            </Text>
          </div>
        </Group>
      )}
      <div>
        <Title order={3}>Let in</Title>
        {told.screens.length === 0 ? (
          <Text>None besides this machine.</Text>
        ) : (
          <Table aria-label="Screens">
            <Table.Tbody>
              {told.screens.map((s) => (
                <Table.Tr key={s.id}>
                  <Table.Td>{s.name}</Table.Td>
                  <Table.Td>{s.kind === 'wall' ? 'only shows' : 'people sign in'}</Table.Td>
                  <Table.Td>since {whenWords(s.pairedAtMs)}</Table.Td>
                  <Table.Td>
                    {s.takenBackAtMs === null ? (
                      <Button
                        size="compact-sm"

                        onClick={() => change.mutate(s.id)}
                      >
                        Take its leave back
                      </Button>
                    ) : (
                      `taken back ${whenWords(s.takenBackAtMs)}`
                    )}
                  </Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        )}
      </div>
    </Stack>
  )
}

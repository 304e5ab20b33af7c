/** A screen on the wall: goes to the service that is under way, and waits while there is none. */
import { Text, Title } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { Link, Navigate } from 'react-router'
import { call } from '../api/call.ts'

export function WallPage() {
  const wall = useQuery({ queryKey: ['wall'], queryFn: () => call('wall'), refetchInterval: 4000 })
  const running = wall.data?.running ?? []
  if (running.length === 1) return <Navigate to={to(running[0]!)} replace />
  return (
    <main className="page">
      <Title>{running.length === 0 ? 'No service is under way' : 'Which service?'}</Title>
      {running.length === 0 && <Text mt="md">It shows here as soon as one begins.</Text>}
      {running.map((r) => (
        <Text key={r.visitId} mt="md" size="xl">
          <Link to={to(r)}>
            {r.name}, by {r.worker}
          </Link>
        </Text>
      ))}
    </main>
  )
}

const to = (r: { clientId: string; visitId: string }) =>
  `/clients/${r.clientId}/wall?visit=${r.visitId}`

/** The end of a list that goes on: how much of it is shown, and the rest. */
import { Button, Group, Text } from '@mantine/core'
import type { UseInfiniteQueryResult } from '@tanstack/react-query'

export function More({
  of,
  shown,
  total,
}: {
  of: Pick<UseInfiniteQueryResult, 'hasNextPage' | 'fetchNextPage' | 'isFetchingNextPage'>
  shown: number
  total: number
}) {
  if (!of.hasNextPage) return null
  return (
    <Group mt="sm" gap="md">
      <Button variant="default" loading={of.isFetchingNextPage} onClick={() => of.fetchNextPage()}>
        Show more
      </Button>
      <Text c="dimmed">
        {shown} of {total}
      </Text>
    </Group>
  )
}

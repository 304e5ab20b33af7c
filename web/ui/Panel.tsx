/** The head of a panel: what it is about, and its one strong act at the right. */
import { Group, Title } from '@mantine/core'
import type { ReactNode } from 'react'

export const PanelHead = ({
  title,
  level = 1,
  children,
}: {
  title: ReactNode
  level?: 1 | 2
  children?: ReactNode
}) => (
  <Group justify="space-between" align="flex-start" gap="md" wrap="nowrap">
    <Title order={level} fz={25} lh={1.2} pt={6} miw={0} style={{ overflowWrap: 'anywhere' }}>
      {title}
    </Title>
    {children}
  </Group>
)

/** Something went wrong, or was refused. */
export const Problem = ({ children }: { children: ReactNode }) =>
  children ? (
    <p role="alert" className="problem">
      {children}
    </p>
  ) : null

/** What every page of the door has: the mark, the house, the lamp. */
import frame from '../frame/Frame.module.css'
import css from './Door.module.css'
import {
  Box,
  Button,
  Group,
  Text,
  Title,
  useComputedColorScheme,
  useMantineColorScheme,
} from '@mantine/core'

export function DoorFrame({
  house,
  under,
  children,
}: {
  house: string
  under: string
  children: React.ReactNode
}) {
  const { toggleColorScheme } = useMantineColorScheme()
  const lamp = useComputedColorScheme('light') === 'dark'
  return (
    <main className={css.door}>
      <Group justify="space-between">
        <span className={frame.wordmark}>
          <svg viewBox="0 0 30 20" width="30" height="20" aria-hidden>
            <path d="M1 12c4-11 9-11 14 0 3 6 6 6 9 2M1 18h28" />
          </svg>
          Slow Tide
        </span>
        <Button variant="bare" onClick={toggleColorScheme} aria-pressed={lamp}>
          {lamp ? 'Daylight' : 'Lamp'}
        </Button>
      </Group>
      <Title className={css.house}>{house}</Title>
      <Text size="lg">{under}</Text>
      <Box mt="lg">{children}</Box>
      <svg className={css.tide} viewBox="0 0 390 60" preserveAspectRatio="none" aria-hidden>
        <path d="M0 48L46 14V48L100 6V48L170 20V48L232 12V48L284 4V48L390 10V60H0Z" />
      </svg>
    </main>
  )
}

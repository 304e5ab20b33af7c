/** Choices against an outcome: each with its range and what it takes to tell more; never a bare ranking. */
import css from '../stations/return/Return.module.css'
import { Text, Title } from '@mantine/core'
import type { Effects } from '../../core/history/index.ts'

export function EffectList({ effects }: { effects: Effects }) {
  const told = effects.effects.filter((e) => e.verdict !== 'never-varied')
  const same = effects.effects.filter((e) => e.verdict === 'never-varied')
  return (
    <>
      <Title order={3}>
        {effects.outcome === 'redness' ? 'Redness' : 'Bumps'}{' '}
        <Text span size="sm" c="dimmed" ff="text" fw={400}>
          {effects.visits} answered visits
        </Text>
      </Title>
      <ul>
        {told.map((e) => (
          <li key={e.id} className={css.effect} data-testid="effect" data-look={e.verdict}>
            <b>{e.name}.</b> {e.words}{' '}
            <Text span size="sm" c="dimmed">
              {e.withIt} with, {e.without} without
            </Text>
          </li>
        ))}
        {told.length === 0 && <li>Everything was always done the same way.</li>}
      </ul>
      {same.length > 0 && told.length > 0 && (
        <Text size="sm" c="dimmed">
          Never varied: {same.map((e) => e.name.split(',')[0]!.toLowerCase()).join(', ')}.
        </Text>
      )}
    </>
  )
}

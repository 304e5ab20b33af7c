/** What stands behind a figure, with the house's values and the way to change them. */
import { Anchor, Stack, Table, Text, Title } from '@mantine/core'
import { Link } from 'react-router'
import { MARK_WORDS, type Mark } from '../../core/house/index.ts'
import {
  ESTIMATES,
  MARK_MEANS,
  type EstimateId,
  type EstimateText,
} from '../../core/estimates/index.ts'
import { constantOf } from '../../core/register/index.ts'
import { capital } from '../../core/words.ts'
import { useFigures } from '../state/figures.ts'
import { useUnits } from '../state/shape.ts'
import css from './Estimate.module.css'

export function EstimateSheet({ of, mark }: { of?: EstimateId | undefined; mark: Mark }) {
  const { unit } = useUnits()
  const figures = useFigures()
  const text: EstimateText | undefined = of && ESTIMATES[of]
  if (!text)
    return (
      <Stack gap="xs" role="dialog" aria-label={MARK_WORDS[mark]}>
        <Title order={3} data-autofocus tabIndex={-1}>
          {capital(MARK_WORDS[mark])}
        </Title>
        <Text size="sm">{MARK_MEANS[mark]}</Text>
        <Anchor component={Link} to="/house/estimates" size="sm">
          All estimates of the house
        </Anchor>
      </Stack>
    )
  return (
    <Stack gap="xs" role="dialog" aria-label={text.name}>
      <Title order={3} data-autofocus tabIndex={-1}>
        {text.name}
      </Title>
      <Text size="sm">{text.what}</Text>
      <Text size="sm" className={css.formula}>
        {text.formula}
      </Text>
      {text.constants.length > 0 && (
        <Table>
          <Table.Tbody>
            {text.constants.map((id) => {
              const c = constantOf(id)
              return (
                <Table.Tr key={id}>
                  <Table.Td>{c.text}</Table.Td>
                  <Table.Td data-num>
                    <b>{figures(c)}</b> {unit(c.unit)}
                  </Table.Td>
                  <Table.Td data-num>
                    <Anchor
                      component={Link}
                      to={`/house/estimates?at=${id}`}
                      size="sm"
                      aria-label={`Change: ${c.text}`}
                    >
                      change
                    </Anchor>
                  </Table.Td>
                </Table.Tr>
              )
            })}
          </Table.Tbody>
        </Table>
      )}
      {text.source && (
        <Text size="sm" c="dimmed">
          {text.source}.
        </Text>
      )}
      <Text size="sm" c="dimmed">
        {capital(MARK_WORDS[text.mark])}. {MARK_MEANS[text.mark]}
      </Text>
    </Stack>
  )
}

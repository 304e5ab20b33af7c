/** The tone of the skin, under the head: asked of everybody, so that redness is read rightly; it decides nothing else. */
import { Group, Radio, Text } from '@mantine/core'
import type { Client } from '../../../contract/types.ts'
import { SKIN_TONES } from '../../../core/palette.ts'
import { useChangeClient } from '../../api/queries.ts'
import { StageShown } from '../../ui/Stage.tsx'
import css from './Ask.module.css'

export function Tone({ client }: { client: Client }) {
  const change = useChangeClient(client.id)
  const { tone } = client.skin
  return (
    <StageShown>
      <Text fz={14} lh={1.3}>
        Skin tone, so that redness is read rightly.{' '}
        <Text span inherit c="dimmed">
          Asked of everybody; it decides nothing else.
        </Text>
      </Text>
      <Radio.Group
        className={css.tones}
        aria-label="Skin tone, for reading redness"
        value={tone === undefined ? '' : String(tone)}
        onChange={(v) => change.mutate({ skin: { ...client.skin, tone: Number(v) } })}
      >
        <Group gap={8} pb={6} pt={4} wrap="nowrap">
          {SKIN_TONES.map((colour, i) => (
            <Radio.Card
              key={colour}
              value={String(i + 1)}
              className={css.tone}
              style={{ background: colour }}
              aria-label={`${i + 1} of 6`}
            />
          ))}
          <Text size="sm" c="dimmed" ml={6} style={{ whiteSpace: 'nowrap' }}>
            {tone === undefined ? 'not told' : `${tone} of 6`}
          </Text>
        </Group>
      </Radio.Group>
    </StageShown>
  )
}

/** "Feel first": the guess as it stands, and three ways to say what the finger found. */
import css from './Chair.module.css'
import { UnstyledButton } from '@mantine/core'
import { feltFromGuess } from '../../../core/chair/index.ts'
import type { ChairProps } from './ChairHead.tsx'
import { PictureHour, useTelling } from '../../head/telling.tsx'
import { Problem } from '../../ui/Panel.tsx'
import { feltAt, turnFelt, useFelt } from './felt.ts'

/** Nearer to the guess than this it reads as the same direction, degrees. */
const SAME_DEG = 5

export function FeelView({ chair }: Pick<ChairProps, 'chair'>) {
  const { live } = chair
  // Asked for its changes: what is felt is read off below.
  const { problem } = useFelt()
  const tell = useTelling()
  const felt = feltAt(live)
  if (!felt) return null
  const way = tell(felt.zoneId, felt, felt.tangent)
  const off = feltFromGuess(live.plan, felt.zoneId, felt)
  return (
    <>
      <div className={css.row} role="group" aria-label="Which way it is felt to grow">
        <UnstyledButton className={css.pick} onClick={() => turnFelt(live, -30)}>
          ⟲ turn
        </UnstyledButton>
        <UnstyledButton className={css.pick} onClick={() => turnFelt(live, 30)}>
          turn ⟳
        </UnstyledButton>
        <UnstyledButton className={css.pick} onClick={() => turnFelt(live, 180)}>
          the other way
        </UnstyledButton>
        <span className={css.hand} role="status">
          {off < SAME_DEG ? 'As guessed: ' : 'Felt: '}
          <b>{way.told.text}</b> <PictureHour way={way} />
        </span>
      </div>
      <p className={css.notice}>
        Draw it on the head from root to tip, or turn the arrow with [ and ]. The main key writes it
        into the map.
      </p>
      <Problem>{problem}</Problem>
    </>
  )
}

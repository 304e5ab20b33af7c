/** The large keys of the bar. */
import { Kbd, UnstyledButton } from '@mantine/core'
import { Link } from 'react-router'
import css from './Chair.module.css'
import { canSpeak, useVoice } from './voice.ts'

/** Beside Begin: back, the card on paper, the voice, the second screen. */
export function ReadyKeys({
  toPlan,
  card,
  wallAt,
}: {
  toPlan: () => unknown
  card: string
  wallAt: string
}) {
  const voice = useVoice()
  return (
    <>
      <ChairButton name="Back to plan" sign="Esc" onClick={toPlan} disabled={false} />
      <Link className={css.key} to={card}>
        <b>Show the card</b>
        <Kbd aria-hidden>C</Kbd>
      </Link>
      <ChairButton
        name={voice.on ? 'Voice off' : 'Voice on'}
        sign="V"
        onClick={voice.toggle}
        disabled={!canSpeak}
      />
      <Link className={css.key} to={wallAt} target="_blank" rel="noreferrer">
        <b>Wall screen</b>
        <Kbd aria-hidden>W</Kbd>
      </Link>
    </>
  )
}

export function ChairButton({
  name,
  sign,
  onClick,
  disabled,
  main = false,
}: {
  name: string
  sign: string
  onClick: () => unknown
  disabled: boolean
  /** One of those that stay on a phone. */
  main?: boolean
}) {
  return (
    <UnstyledButton
      className={css.key}
      mod={{ main }}
      onClick={() => void onClick()}
      disabled={disabled}
    >
      <b>{name}</b>
      <Kbd aria-hidden>{sign}</Kbd>
    </UnstyledButton>
  )
}

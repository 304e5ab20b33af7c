/** The large keys of the bar. */
import { UnstyledButton } from '@mantine/core'
import { Link } from 'react-router'
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
      <Link className="chair-key" to={card}>
        <b>Show the card</b>
        <small>C</small>
      </Link>
      <ChairButton
        name={voice.on ? 'Voice off' : 'Voice on'}
        sign="V"
        onClick={voice.toggle}
        disabled={!canSpeak}
      />
      <Link className="chair-key" to={wallAt} target="_blank" rel="noreferrer">
        <b>Wall screen</b>
        <small>W</small>
      </Link>
    </>
  )
}

export function ChairButton({
  name,
  sign,
  onClick,
  disabled,
}: {
  name: string
  sign: string
  onClick: () => unknown
  disabled: boolean
}) {
  return (
    <UnstyledButton className="chair-key" onClick={() => void onClick()} disabled={disabled}>
      <b>{name}</b>
      <small>{sign}</small>
    </UnstyledButton>
  )
}

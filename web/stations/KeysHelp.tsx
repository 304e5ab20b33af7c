/** All keys, on `?`. */
import { Modal } from '@mantine/core'
import { useDisclosure, useHotkeys } from '@mantine/hooks'

const KEYS = [
  ['1 … 6', 'Front, client’s left, client’s right, under chin, crown, nape'],
  ['Drag', 'On the head, from root to tip: writes a direction (Read)'],
  ['Right drag, two fingers', 'Turns the head'],
  ['Wheel, pinch', 'Closer, farther'],
  ['[ ]', 'Turns the chosen zone’s direction by 15°, with Shift by 1°'],
  ['T, ← →', 'Guided test: slides, catches; Backspace takes back, Esc leaves'],
  ['N', 'Where the next reading would tell most'],
  ['C, G', 'Comb: one stroke, many readings; starting guesses on and off'],
  [', .', 'Chooses a reading or a line’s point; arrows move it, Del takes it away'],
  ['M', 'Mirrors the chosen zone or line to the other side'],
  ['7 8 9, K', 'Plan: gentlest, balanced, closest; keep the plan'],
  ['Z, Shift Z', 'Undo, redo'],
  ['Ctrl K', 'Find a client'],
  [
    'Esc C V W',
    'Chair, before it begins: back to the plan, the card, the voice, the second screen',
  ],
  ['Space, PageDown', 'Chair: done, next, also by pedal; PageUp: back'],
  ['N T E B', 'Chair: nick, tugs, needs pressure, new blade'],
  ['S R P M', 'Chair: skip, re-lather, pause, more'],
  ['W L X', 'Chair: skin reddens, leave a place out, client asks to stop'],
  ['[ ]', 'Chair, where the grain is felt: turns what was felt by 15°'],
] as const

export function KeysHelp() {
  const [opened, { open, close }] = useDisclosure(false)
  useHotkeys([
    ['shift+?', open],
    ['?', open],
  ])
  return (
    <>
      <button className="keys-button" onClick={open}>
        <kbd>?</kbd> all keys
      </button>
      <Modal opened={opened} onClose={close} title="All keys" size="lg">
        <dl className="keys">
          {KEYS.map(([key, text]) => (
            <div key={key}>
              <dt>
                <kbd>{key}</kbd>
              </dt>
              <dd>{text}</dd>
            </div>
          ))}
        </dl>
      </Modal>
    </>
  )
}

/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { render, spy } from '../testing/render.tsx'
import { Act, KeyButton } from './Act.tsx'
import { isoDaysAgo, WhenRow } from './DateField.tsx'
import { Estimate } from './Estimate.tsx'
import { Figure, Figures } from './Figures.tsx'
import { named, PickOne } from './PickOne.tsx'
import { Row, Rows } from './Rows.tsx'
import { Slide } from './Slide.tsx'
import { FootInstead, FootSlot, Stage, StageActs, useFootTaken } from './Stage.tsx'
import { Toggles } from './Toggles.tsx'
import { Words } from './Words.tsx'

const user = userEvent.setup()

describe('an act with its key', () => {
  it('is done by the word and by the key, and says its key', async () => {
    const done = spy()
    render(
      <Act k="comb" pressed={false} onAct={done}>
        Comb
      </Act>,
    )
    const word = screen.getByRole('button', { name: /Comb/ })
    expect(word.getAttribute('aria-keyshortcuts')).toBe('C')
    expect(word.getAttribute('aria-pressed')).toBe('false')
    await user.click(word)
    await user.keyboard('c')
    expect(done.calls).toHaveLength(2)
  })

  it('has neither where it is not to be had', async () => {
    const done = spy()
    render(
      <Act k="comb" disabled onAct={done}>
        Comb
      </Act>,
    )
    await user.click(screen.getByRole('button', { name: /Comb/ }))
    await user.keyboard('c')
    expect(done.calls).toHaveLength(0)
  })

  it('is not done while somebody writes, nor under a dialog, but over a word that was chosen', async () => {
    const done = spy()
    function Page() {
      const [dialog, setDialog] = useState(false)
      const [word, setWord] = useState<'a' | 'b'>('a')
      return (
        <>
          <KeyButton k="keep" onAct={done}>
            Keep
          </KeyButton>
          <input aria-label="name" />
          <Words
            label="Which"
            data={[
              ['a', 'one'],
              ['b', 'two'],
            ]}
            value={word}
            onChange={setWord}
          />
          <button onClick={() => setDialog(true)}>open</button>
          {dialog && <div role="dialog">asks</div>}
        </>
      )
    }
    render(<Page />)
    await user.type(screen.getByLabelText('name'), 'k')
    expect(done.calls).toHaveLength(0)
    await user.click(screen.getByText('two'))
    await user.keyboard('k')
    expect(done.calls).toHaveLength(1)
    await user.click(screen.getByText('open'))
    await user.keyboard('k')
    expect(done.calls).toHaveLength(1)
  })
})

describe('choices', () => {
  it('are words of which one is chosen, by hand and by arrow', async () => {
    const chosen = spy()
    function Page() {
      const [word, setWord] = useState<'felt' | 'pad' | undefined>()
      return (
        <Words
          label="How"
          data={[['felt', 'felt'], { value: 'pad', label: 'pad' }]}
          value={word}
          onChange={(w) => {
            setWord(w)
            chosen(w)
          }}
        />
      )
    }
    render(<Page />)
    expect(screen.getByRole('radiogroup', { name: 'How' })).toBeTruthy()
    expect(screen.queryByRole('radio', { checked: true })).toBeNull()
    await user.click(screen.getByText('felt'))
    await user.keyboard('{ArrowRight}')
    expect(chosen.calls.flat()).toEqual(['felt', 'pad'])
  })

  it('are a list that opens, with what cannot be chosen named', async () => {
    const chosen = spy()
    render(
      <PickOne
        label="Blade"
        data={[
          ...named(['a', 'b'] as const, (id) => `blade ${id}`),
          { value: 'c' as never, label: 'not yours', disabled: true },
        ]}
        value={'a' as const}
        onChange={chosen}
      />,
    )
    const field = screen.getByRole('combobox', { name: 'Blade' })
    expect((field as HTMLInputElement).value).toBe('blade a')
    await user.click(field)
    await user.click(await screen.findByText('blade b'))
    expect(chosen.calls).toContainEqual(['b'])
  })

  it('are toggles, each on or off', async () => {
    const told = spy()
    render(<Toggles label="Parts" of={[{ id: 'arms', name: 'Arms', on: true }]} onToggle={told} />)
    await user.click(screen.getByRole('checkbox', { name: 'Arms' }))
    expect(told.calls).toContainEqual(['arms', false])
  })

  it('are a measure that is slid, with its unit said', async () => {
    const moved = spy()
    render(<Slide name="Margin" unit="mm" least={0} most={20} value={5} onChange={moved} />)
    const post = screen.getByRole('slider', { name: 'Margin, mm' })
    expect(post.getAttribute('aria-valuetext')).toBe('5 mm')
    post.focus()
    await user.keyboard('{ArrowRight}')
    expect(moved.calls).toContainEqual([6])
  })
})

describe('a day', () => {
  it('is answered by the usual words first', async () => {
    const told = spy()
    render(<WhenRow what="Retinoid" value={isoDaysAgo(1)} onChange={told} />)
    expect(screen.getByRole('radio', { name: 'yesterday' })).toHaveProperty('checked', true)
    await user.click(screen.getByText('3 days ago'))
    expect(told.calls).toContainEqual([isoDaysAgo(3)])
  })

  it('may be written', async () => {
    const told = spy()
    render(<WhenRow what="Retinoid" value={undefined} onChange={told} />)
    const field = screen.getByRole('textbox', { name: 'Retinoid: date' })
    await user.type(field, '3 Feb 2026')
    await user.tab()
    await waitFor(() => expect(told.calls.at(-1)).toEqual(['2026-02-03']))
  })
})

describe('an estimate', () => {
  it('says what it is, and opens to its formula, values and the way to them', async () => {
    render(<Estimate of="plan-any">40 %</Estimate>)
    const figure = screen.getByRole('button', { name: /40 % a house estimate/ })
    await user.click(figure)
    expect(await screen.findByText('Any zone reddens')).toBeTruthy()
    expect(screen.getByText(/One minus the chance/)).toBeTruthy()
    const change = screen.getAllByRole('link', { name: /^Change/ })[0]!
    expect(change.getAttribute('href')).toMatch(/^\/house\/estimates\?at=skin\./)
    await user.keyboard('{Escape}')
    await waitFor(() => expect(screen.queryByText('Any zone reddens')).toBeNull())
  })

  it('opens by keyboard, and without a text of its own says what its mark means', async () => {
    render(<Estimate mark="C" />)
    await user.tab()
    await user.keyboard('{Enter}')
    expect(await screen.findByText(/Local codes/)).toBeTruthy()
  })
})

describe('the stage', () => {
  it('holds a station’s acts beside the head, and gives the tide line’s place away', async () => {
    function Page() {
      const [on, setOn] = useState(true)
      const taken = useFootTaken()
      return (
        <>
          <Stage label="The head">
            <i>head</i>
          </Stage>
          <FootSlot />
          {!taken && <p>tide line</p>}
          {on && (
            <>
              <StageActs label="Ways">
                <b>stroke</b>
              </StageActs>
              <FootInstead>sign here</FootInstead>
            </>
          )}
          <button onClick={() => setOn(!on)}>leave</button>
        </>
      )
    }
    render(<Page />)
    const stage = screen.getByRole('region', { name: 'The head' })
    expect(stage.contains(screen.getByText('stroke'))).toBe(true)
    expect(screen.getByText('sign here')).toBeTruthy()
    expect(screen.queryByText('tide line')).toBeNull()
    await user.click(screen.getByText('leave'))
    expect(screen.queryByText('stroke')).toBeNull()
    expect(screen.getByText('tide line')).toBeTruthy()
  })
})

it('rows and figures name what they hold', () => {
  render(
    <>
      <Rows label="Lines">
        <Row acts={<button>Take away</button>} chosen>
          cheek line
        </Row>
      </Rows>
      <Figures label="The visit">
        <Figure name="smooth for">24 h</Figure>
      </Figures>
    </>,
  )
  expect(screen.getByRole('list', { name: 'Lines' }).textContent).toContain('cheek line')
  expect(screen.getByText('smooth for').closest('dl')?.textContent).toContain('24 h')
})

/** @jest-environment jsdom */
import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { USE_WORDS, type Product } from '../../core/care/index.ts'
import { NoticeBoard } from '../ui/NoticeBoard.tsx'
import { render } from '../testing/render.tsx'
import { ProductList } from './ProductList.tsx'

const user = userEvent.setup()
const balm: Product = { id: 'balm', name: 'Balm', use: 'after', holds: [] }

function setUp(begin: readonly Product[] = [balm]) {
  let now = begin
  function Page() {
    const [products, setProducts] = useState(begin)
    return (
      <>
        <ProductList
          products={products}
          onChange={(p) => {
            now = p
            setProducts(p)
          }}
        />
        <NoticeBoard />
      </>
    )
  }
  render(<Page />)
  return () => now
}

describe('the house’s products', () => {
  it('one is added with its use, under a name of its own', async () => {
    const now = setUp()
    await user.type(screen.getByLabelText('Another product'), 'Kelp oil')
    await user.click(screen.getByRole('combobox', { name: 'Used' }))
    await user.click(await screen.findByRole('option', { name: USE_WORDS.before }))
    await user.click(screen.getByRole('button', { name: 'Add' }))
    expect(now()[1]).toMatchObject({ name: 'Kelp oil', use: 'before', holds: [] })
    expect(screen.getByLabelText<HTMLInputElement>('Another product').value).toBe('')
  })

  it('none without a name, and none twice', async () => {
    const now = setUp()
    await user.click(screen.getByRole('button', { name: 'Add' }))
    expect(await screen.findByText('A product needs a name.')).toBeTruthy()
    await user.type(screen.getByLabelText('Another product'), ' balm ')
    await user.click(screen.getByRole('button', { name: 'Add' }))
    expect(await screen.findByText('That product is here already.')).toBeTruthy()
    expect(now()).toEqual([balm])
  })

  it('what is in it is ticked, and unticked', async () => {
    const now = setUp()
    const tick = () => screen.getByLabelText('Balm holds fragrance')
    await user.click(tick())
    expect(now()[0]!.holds).toEqual(['fragrance'])
    await user.click(tick())
    expect(now()[0]!.holds).toEqual([])
  })

  it('one that was removed comes back by Undo, with all that it held', async () => {
    const now = setUp([{ ...balm, holds: ['fragrance'] }])
    await user.click(screen.getByRole('button', { name: 'Remove Balm' }))
    expect(now()).toEqual([])
    const told = (await screen.findByText('Balm was removed.')).closest('[role]')!
    await user.click(within(told as HTMLElement).getByRole('button', { name: 'Undo' }))
    expect(now()).toEqual([{ ...balm, holds: ['fragrance'] }])
  })
})

/** The house's products, and what of their ingredients matters; checked against a client at Care. */
import { focusWrong } from '../ui/focusWrong.ts'
import { Button, Checkbox, Group, Table, TextInput, Title } from '@mantine/core'
import { useForm } from '@mantine/form'
import { named, PickOne } from '../ui/PickOne.tsx'
import { tellDone } from '../ui/notices.ts'
import { newId } from '../state/words.ts'
import {
  FACT_WORDS,
  PRODUCT_FACTS,
  USE_WORDS,
  type Product,
  type ProductFact,
} from '../../core/care/index.ts'

const USES = Object.keys(USE_WORDS) as Product['use'][]

export function ProductList({
  products,
  onChange,
}: {
  products: readonly Product[]
  onChange: (products: readonly Product[]) => void
}) {
  const form = useForm<Pick<Product, 'name' | 'use'>>({
    initialValues: { name: '', use: 'after' },
    validate: {
      name: (typed) =>
        typed.trim() === ''
          ? 'A product needs a name.'
          : products.some((p) => p.name.toLowerCase() === typed.trim().toLowerCase())
            ? 'That product is here already.'
            : null,
    },
  })
  const edit = (id: string, change: Partial<Product>) =>
    onChange(products.map((p) => (p.id === id ? { ...p, ...change } : p)))
  const toggle = (p: Product, fact: ProductFact) =>
    edit(p.id, {
      holds: p.holds.includes(fact) ? p.holds.filter((f) => f !== fact) : [...p.holds, fact],
    })
  const add = form.onSubmit(({ name, use }) => {
    onChange([...products, { id: `own-${newId().slice(0, 8)}`, name: name.trim(), use, holds: [] }])
    form.setFieldValue('name', '')
  }, focusWrong(form))
  return (
    <section>
      <Title order={2}>Products</Title>
      <p>Tick what is in them: at Care they are checked against the client’s allergies and skin.</p>
      <Table.ScrollContainer minWidth={640}>
        <Table>
          <Table.Thead>
            <Table.Tr>
              <Table.Th scope="col">Product</Table.Th>
              {PRODUCT_FACTS.map((f) => (
                <Table.Th data-num scope="col" key={f}>
                  {FACT_WORDS[f]}
                </Table.Th>
              ))}
              <Table.Th scope="col">
                <span className="hidden">Remove</span>
              </Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {products.map((p) => (
              <Table.Tr key={p.id}>
                <Table.Td>
                  {p.name} <small>{USE_WORDS[p.use]}</small>
                </Table.Td>
                {PRODUCT_FACTS.map((f) => (
                  <Table.Td data-num key={f}>
                    <Checkbox
                      display="inline-block"
                      aria-label={`${p.name} holds ${FACT_WORDS[f]}`}
                      checked={p.holds.includes(f)}
                      onChange={() => toggle(p, f)}
                    />
                  </Table.Td>
                ))}
                <Table.Td>
                  <Button
                    variant="bare"
                    size="sm"
                    aria-label={`Remove ${p.name}`}
                    onClick={() => {
                      onChange(products.filter((x) => x.id !== p.id))
                      tellDone(`${p.name} was removed.`, () => onChange(products))
                    }}
                  >
                    remove
                  </Button>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
      <form onSubmit={add}>
        <Group gap="sm" align="flex-start" mt="sm">
          <TextInput
            label="Another product"
            w={260}
            maxLength={80}
            {...form.getInputProps('name')}
          />
          <PickOne
            label="Used"
            w={180}
            data={named(USES, (u) => USE_WORDS[u])}
            value={form.values.use}
            onChange={(to) => form.setFieldValue('use', to)}
          />
          <Button type="submit" mt={30}>
            Add
          </Button>
        </Group>
      </form>
    </section>
  )
}

/** Pictures of a visit: optional, kept on this machine, without what a camera writes into them. */
import { Button, FileButton, Group, Text, Title } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { VisitPage } from '../../../contract/types.ts'
import { address } from '../../api/call.ts'
import { about } from '../../api/queries.ts'
import { useUnsaved, write } from '../../outbox/browser.ts'
import { Problem } from '../../ui/Panel.tsx'
import css from './Chair.module.css'
import { shrunk } from './shrunk.ts'
import { newId } from '../../state/words.ts'
import { whenWords } from '../../../core/time/index.ts'

export function Photos({ visit }: { visit: VisitPage }) {
  const cache = useQueryClient()
  const again = () => cache.invalidateQueries({ queryKey: ['visit', visit.id] })
  const waiting = useUnsaved({ visitId: visit.id }).filter((w) => w.route === 'addPhoto').length
  const add = useMutation({
    mutationFn: async (file: File) =>
      write(
        'addPhoto',
        // The form is made when it is sent: here it waits as it is.
        { params: { id: visit.id }, body: { id: newId(), photo: await shrunk(file) } as never },
        about(visit.id, 'a picture'),
      ),
    onSuccess: again,
  })
  const remove = useMutation({
    mutationFn: (id: string) =>
      write('removePhoto', { params: { id } }, about(visit.id, 'a picture taken out')),
    onSuccess: again,
  })
  return (
    <section>
      <Title order={2}>Pictures</Title>
      <Text size="sm" c="dimmed">
        Only with the client’s consent. They stay on this machine; place, time and camera are taken
        out of the file.
      </Text>
      <Group gap="md" my="xs" className={css.photo}>
        {visit.photos.map((p) => (
          <figure key={p.id}>
            <a href={address('photo', { id: p.id })} target="_blank" rel="noreferrer">
              <img
                src={`${address('photo', { id: p.id })}?size=thumbnail`}
                alt={`Skin, ${whenWords(p.atMs)}`}
              />
            </a>
            <figcaption>
              {whenWords(p.atMs)}{' '}
              <Button variant="bare" size="sm" onClick={() => remove.mutate(p.id)}>
                remove
              </Button>
            </figcaption>
          </figure>
        ))}
        <FileButton
          accept="image/*"
          inputProps={{ 'aria-label': 'Picture of the skin' }}
          onChange={(file) => file && add.mutate(file)}
        >
          {(props) => (
            <Button {...props} loading={add.isPending}>
              {waiting > 0 ? `${waiting} not saved yet` : 'Add a picture'}
            </Button>
          )}
        </FileButton>
      </Group>
      <Problem>{(add.error ?? remove.error)?.message}</Problem>
    </section>
  )
}

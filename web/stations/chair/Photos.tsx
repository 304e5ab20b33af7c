/** Pictures of a visit: optional, kept on this machine, without what a camera writes into them. */
import { Button } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { VisitPage } from '../../../contract/types.ts'
import { address } from '../../api/call.ts'
import { about } from '../../api/queries.ts'
import { useUnsaved, write } from '../../outbox/browser.ts'
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
    <section className="photos">
      <h2>Pictures</h2>
      <p className="soft">
        Only with the client’s consent. They stay on this machine; place, time and camera are taken
        out of the file.
      </p>
      <div className="photo-row">
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
                take out
              </Button>
            </figcaption>
          </figure>
        ))}
        <label className="strong">
          {waiting > 0 ? `${waiting} not saved yet` : 'Add a picture'}
          <input
            type="file"
            accept="image/*"
            className="visually-hidden"
            onChange={(e) => {
              const file = e.currentTarget.files?.[0]
              e.currentTarget.value = ''
              if (file) add.mutate(file)
            }}
          />
        </label>
      </div>
      {(add.isError || remove.isError) && (
        <p role="alert" className="problem">
          {(add.error ?? remove.error)?.message}
        </p>
      )}
    </section>
  )
}

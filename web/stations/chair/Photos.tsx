/** Pictures of a visit: optional, kept on this machine, without what a camera writes into them. */
import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { Photo, Problem, VisitPage } from '../../../contract/types.ts'
import { address, call } from '../../api/call.ts'
import { newId } from '../../state/words.ts'
import { whenWords } from '../../../core/time/index.ts'

export function Photos({ visit }: { visit: VisitPage }) {
  const cache = useQueryClient()
  const again = () => cache.invalidateQueries({ queryKey: ['visit', visit.id] })
  const add = useMutation({
    mutationFn: async (file: File) => {
      const form = new FormData()
      form.append('id', newId())
      form.append('photo', file)
      const r = await fetch(address('addPhoto', { id: visit.id }), { method: 'POST', body: form })
      if (!r.ok) throw new Error(((await r.json()) as Problem).detail)
      return (await r.json()) as Photo
    },
    onSuccess: again,
  })
  const remove = useMutation({
    mutationFn: (id: string) => call('removePhoto', { params: { id } }),
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
              <button className="link" onClick={() => remove.mutate(p.id)}>
                take out
              </button>
            </figcaption>
          </figure>
        ))}
        <label className="strong">
          {add.isPending ? 'It is being kept …' : 'Add a picture'}
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

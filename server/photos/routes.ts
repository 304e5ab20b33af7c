import type { Express } from 'express'
import multer from 'multer'
import { idParams } from '../../contract/schemas.ts'
import { ROUTES } from '../../contract/routes.ts'
import type { Photo } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { mount } from '../http/mount.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { photoFile, photoNames } from './names.ts'
import type { Work } from '../work/work.ts'
import { condemn, recondemn, spare, sweep } from './sweep.ts'

const LARGEST_BYTES = 24 * 1024 * 1024
/** An upload that is not done by then is none. */
const UPLOAD_MOST_MS = 3_600_000
/** Pictures of one visit at most. */
const MOST = 40
const enough = () =>
  new HttpProblem(422, 'enough', `A visit keeps ${MOST} pictures. Take one out first.`)

export function photoRoutes(app: Express, db: Database, dataDir: string, work: Work): void {
  const upload = multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: LARGEST_BYTES, files: 1, fields: 4 },
  })
  app.post(ROUTES.addPhoto.path, (request, response, next) => {
    upload.single('photo')(request, response, (error: unknown) => {
      if (!error) return next()
      next(
        new HttpProblem(
          413,
          'too-large',
          'That picture is larger than 24 MB or did not arrive whole. Nothing was kept of it.',
        ),
      )
    })
  })
  mount(app, 'addPhoto', async ({ params, response }) => {
    // The form has been read by now, what it says beside the picture into the body.
    const { file } = response.req
    const given: unknown = response.req.body
    if (!file || !idParams.isValidSync(given)) {
      throw new HttpProblem(422, 'no-picture', 'No picture came with that. Choose one.')
    }
    const { id } = given
    const [had] = await db.select<{ visit: 1 | null; holder: string | null; count: number }>(
      `SELECT (SELECT 1 FROM visits WHERE id = ?1) AS visit, (SELECT visitId FROM photos WHERE id = ?2) AS holder,
        (SELECT COUNT(*) FROM photos WHERE visitId = ?1) AS count`,
      [params.id, id],
    )
    if (!had?.visit) throw notFound('That visit')
    if (had.holder !== null) return readPhoto(db, id)
    if (had.count >= MOST) throw enough()
    // Until its row is there, its files are to go: a kill in between leaves none behind.
    await db.write(() => condemn(db, photoNames(id), Date.now() + UPLOAD_MOST_MS))
    const size = await work.run('picture', { dataDir, id, bytes: file.buffer })
    const photo: Photo = { id: id, visitId: params.id, atMs: Date.now(), ...size }
    const kept = db.write(async () => {
      // Counted again where nobody can come in between.
      const count = await db.models.Photo.count({ where: { visitId: params.id } })
      if (count >= MOST) throw enough()
      await db.models.Photo.bulkCreate([photo], { ignoreDuplicates: true })
      await spare(db, photoNames(id))
    })
    await kept.catch(async (error: unknown) => {
      await db.write(() => recondemn(db, photoNames(id)))
      await sweep(db, dataDir)
      throw error
    })
    response.status(201)
    return photo
  })
  mount(app, 'photo', async ({ params, query, response }) => {
    await readPhoto(db, params.id)
    await new Promise<void>((sent, failed) => {
      response.type('image/jpeg').setHeader('Cache-Control', 'no-store')
      response.sendFile(
        photoFile(dataDir, params.id, query.size),
        { dotfiles: 'allow', cacheControl: false },
        (error) => (error ? failed(notFound('That picture')) : sent()),
      )
    })
  })
  mount(app, 'removePhoto', async ({ params }) => {
    await db.write(async () => {
      await db.models.Photo.destroy({ where: { id: params.id } })
      await condemn(db, photoNames(params.id))
    })
    await sweep(db, dataDir)
    return { removed: true as const }
  })
}

async function readPhoto(db: Database, id: string): Promise<Photo> {
  const [photo] = await db.select<Photo>('SELECT * FROM photos WHERE id = ?', [id])
  if (!photo) throw notFound('That picture')
  return photo
}

/** Pictures of a visit: on disk beside the database, turned upright, without what a camera writes into them (place, time, device). */
import { mkdirSync } from 'node:fs'
import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import sharp from 'sharp'
import { HttpProblem } from '../http/problem.ts'

const WIDEST_PX = 2000
const THUMBNAIL_PX = 320

export type PhotoSize = 'whole' | 'thumbnail'

const folder = (dataDir: string) => join(dataDir, 'photos')

export const photoFile = (dataDir: string, id: string, size: PhotoSize) =>
  join(folder(dataDir), size === 'whole' ? `${id}.jpg` : `${id}-small.jpg`)

/**
 * Keeps a picture and a small one of it.
 * @throws HttpProblem 422 when it is no picture
 */
export async function keepPhoto(
  dataDir: string,
  id: string,
  bytes: Buffer,
): Promise<{ width: number; height: number }> {
  mkdirSync(folder(dataDir), { recursive: true })
  try {
    // Only the picture itself is written anew: what stood beside it in the file is left behind.
    const upright = sharp(bytes, { limitInputPixels: 80_000_000 }).rotate()
    const { width, height } = await upright
      .clone()
      .resize(WIDEST_PX, WIDEST_PX, { fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 86 })
      .toFile(photoFile(dataDir, id, 'whole'))
    await upright
      .clone()
      .resize(THUMBNAIL_PX, THUMBNAIL_PX, { fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 78 })
      .toFile(photoFile(dataDir, id, 'thumbnail'))
    return { width, height }
  } catch {
    await dropPhoto(dataDir, id)
    throw new HttpProblem(
      422,
      'no-picture',
      'That file cannot be read as a picture. Take a JPEG, PNG or WebP. Nothing was kept of it.',
    )
  }
}

export async function dropPhoto(dataDir: string, id: string): Promise<void> {
  await Promise.all(
    (['whole', 'thumbnail'] as const).map((size) =>
      rm(photoFile(dataDir, id, size), { force: true }),
    ),
  )
}

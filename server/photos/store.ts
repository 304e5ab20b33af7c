/** Pictures of a visit: on disk beside the database, turned upright, without what a camera writes into them (place, time, device). */
import { mkdirSync } from 'node:fs'
import sharp from 'sharp'
import { HttpProblem } from '../http/problem.ts'
import { photoFile, photoFolder } from './names.ts'

const WIDEST_PX = 2000
const THUMBNAIL_PX = 320

/**
 * Keeps a picture and a small one of it.
 * @throws HttpProblem 422 when it is no picture
 */
export async function keepPhoto(
  dataDir: string,
  id: string,
  bytes: Buffer,
): Promise<{ width: number; height: number }> {
  mkdirSync(photoFolder(dataDir), { recursive: true })
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
    throw new HttpProblem(
      422,
      'no-picture',
      'That file cannot be read as a picture. Take a JPEG, PNG or WebP. Nothing was kept of it.',
    )
  }
}

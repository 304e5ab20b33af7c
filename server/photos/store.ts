/** Pictures of a visit: on disk beside the database, turned upright, without what a camera writes into them (place, time, device). */
import { mkdirSync } from 'node:fs'
import sharp from 'sharp'
import { HttpProblem } from '../http/problem.ts'
import { photoFile, photoFolder, type PhotoSize } from './names.ts'

const WIDEST_PX = 2000
const THUMBNAIL_PX = 320
/** More is no picture of skin; a file of a few kilobytes may claim to hold it. */
const MOST_PIXELS = 25_000_000
const MOST_SECONDS = 12

// Only the kinds that cameras and browsers write are ever opened: each reader is code that a file can turn against us.
sharp.block({ operation: ['VipsForeignLoad'] })
sharp.unblock({
  operation: ['VipsForeignLoadJpeg', 'VipsForeignLoadPng', 'VipsForeignLoadWebp'],
})

/**
 * Keeps a picture and a small one of it.
 * @throws HttpProblem 422 `no-picture`, `too-many-pixels`
 */
export async function keepPhoto(
  dataDir: string,
  id: string,
  bytes: Uint8Array,
): Promise<{ width: number; height: number }> {
  mkdirSync(photoFolder(dataDir), { recursive: true })
  try {
    // Only the picture itself is written anew: what stood beside it in the file is left behind.
    const upright = sharp(bytes, {
      limitInputPixels: MOST_PIXELS,
      pages: 1,
      sequentialRead: true,
    }).rotate()
    const kept = (px: number, quality: number, size: PhotoSize) =>
      upright
        .clone()
        .resize(px, px, { fit: 'inside', withoutEnlargement: true })
        .jpeg({ quality })
        .timeout({ seconds: MOST_SECONDS })
        .toFile(photoFile(dataDir, id, size))
    const { width, height } = await kept(WIDEST_PX, 86, 'whole')
    await kept(THUMBNAIL_PX, 78, 'thumbnail')
    return { width, height }
  } catch (error) {
    if (/pixel limit/i.test(String(error))) {
      throw new HttpProblem(
        422,
        'too-many-pixels',
        'That picture has more than 25 million points. Take it smaller. Nothing was kept of it.',
      )
    }
    throw new HttpProblem(
      422,
      'no-picture',
      'That file cannot be read as a picture. Take a JPEG, PNG or WebP. Nothing was kept of it.',
    )
  }
}

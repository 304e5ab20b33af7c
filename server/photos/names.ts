/** Files of a picture, in the folder `photos` beside the database. */
import { join } from 'node:path'

export type PhotoSize = 'whole' | 'thumbnail'

const nameOf = (id: string, size: PhotoSize) => (size === 'whole' ? `${id}.jpg` : `${id}-small.jpg`)

export const photoNames = (id: string): readonly string[] => [
  nameOf(id, 'whole'),
  nameOf(id, 'thumbnail'),
]

export const photoFolder = (dataDir: string) => join(dataDir, 'photos')

export const photoFile = (dataDir: string, id: string, size: PhotoSize) =>
  join(photoFolder(dataDir), nameOf(id, size))

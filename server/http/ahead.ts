/**
 * What a client's page will ask for, named in the page itself: so it comes beside the first scripts, not after they have been
 * read. Taken from the list that the build keeps of its files.
 */
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { STATIONS } from '../../core/visit/index.ts'
import { NONCE } from './headers.ts'

interface Chunk {
  readonly file: string
  readonly imports?: readonly string[]
  readonly css?: readonly string[]
}
type Files = Readonly<Record<string, Chunk>>

/** A chunk with all that it imports; none where there is no such chunk. */
function withImports(files: Files, name: string, found = new Map<string, Chunk>()) {
  const chunk = files[name]
  if (!chunk || found.has(name)) return found
  found.set(name, chunk)
  for (const next of chunk.imports ?? []) withImports(files, next, found)
  return found
}

const HEAD = '../generated/head.bin'
const ALWAYS = ['stations/ClientFrame.tsx', 'head/HeadCanvas.tsx']
const capital = (s: string) => s[0]!.toUpperCase() + s.slice(1)
/** The address of a station of a client. */
const AT = new RegExp(`^/clients/[0-9a-f-]{36}/(${STATIONS.join('|')})$`)

/**
 * @param webDir the built files
 * @param page the page as it was built
 * @returns the page for a path
 */
export function pageWithAhead(webDir: string, page: string): (path: string) => string {
  const list = join(webDir, '.vite', 'manifest.json')
  if (!existsSync(list)) return () => page
  const files = JSON.parse(readFileSync(list, 'utf8')) as Files
  const linked = (station: string) => {
    const chunks = [...ALWAYS, `stations/${station}/${capital(station)}Station.tsx`].flatMap(
      (name) => [...withImports(files, name).values()],
    )
    const link = (rel: string, file: string, more = '') =>
      page.includes(`"/${file}"`)
        ? []
        : [`<link rel="${rel}" href="/${file}"${more} crossorigin nonce="${NONCE}">`]
    const lines = [
      ...chunks.flatMap((c) => link('modulepreload', c.file)),
      ...chunks.flatMap((c) => c.css ?? []).flatMap((f) => link('preload', f, ' as="style"')),
      ...(files[HEAD] ? link('preload', files[HEAD].file, ' as="fetch"') : []),
    ]
    return page.replace('</head>', `${[...new Set(lines)].join('\n')}\n</head>`)
  }
  const pages = new Map(STATIONS.map((s) => [s as string, linked(s)]))
  return (path) => pages.get(AT.exec(path)?.[1] ?? '') ?? page
}

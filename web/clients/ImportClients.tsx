/** Bringing clients in from a file: looked through first, then all together, and taken back together. */
import { Button } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { wrap, type Remote } from 'comlink'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import { skinToBegin } from '../../core/client.ts'
import type { ClientDraft, Mapping } from '../../core/formats/index.ts'
import { SERVICE_IDS, SERVICES, type ServiceId } from '../../core/services/index.ts'
import { call } from '../api/call.ts'
import { newId } from '../state/words.ts'
import type { ImportWorker, ReadFile } from '../workers/import.worker.ts'
import { MappingRow, Preview } from './ImportPreview.tsx'
import { Imports } from './Imports.tsx'

type Status = 'new' | 'same' | 'unread'
const STATUS_WORDS: Record<Status, string> = {
  new: 'new',
  same: 'here already?',
  unread: 'cannot be taken',
}

const statusOf = (d: ClientDraft): Status =>
  d.problems.length > 0 ? 'unread' : d.same !== undefined ? 'same' : 'new'

/** The worker that holds the file while it is looked through. */
function useImportWorker() {
  const worker = useRef<Remote<ImportWorker>>(undefined)
  useEffect(() => {
    const thread = new Worker(new URL('../workers/import.worker.ts', import.meta.url), {
      type: 'module',
    })
    worker.current = wrap<ImportWorker>(thread)
    return () => thread.terminate()
  }, [])
  return worker
}

export function ImportClients() {
  const worker = useImportWorker()
  const known = useQuery({ queryKey: ['known-clients'], queryFn: () => call('knownClients') })
  const [file, setFile] = useState<{ name: string; read: ReadFile }>()
  const [mapping, setMapping] = useState<Mapping>({})
  const [drafts, setDrafts] = useState<readonly ClientDraft[]>([])
  const [busy, setBusy] = useState(false)
  const [wrong, setWrong] = useState<string>()
  /** Lines decided otherwise than by default. */
  const [turned, setTurned] = useState<ReadonlySet<number>>(new Set())
  const [service, setService] = useState<ServiceId>(SERVICE_IDS[0]!)
  const [filter, setFilter] = useState<Status>()
  const cache = useQueryClient()

  const lookThrough = async (next: Mapping) => {
    setMapping(next)
    setBusy(true)
    // Without them nobody could be told from who is here already.
    const people = known.data ?? (await known.refetch()).data
    if (people) setDrafts((await worker.current?.draft(next, [...people])) ?? [])
    else setWrong('Who is here already could not be looked up. Try again when the house answers.')
    setTurned(new Set())
    setBusy(false)
  }
  const open = async (chosen: File) => {
    setBusy(true)
    setWrong(undefined)
    setFile(undefined)
    setDrafts([])
    bring.reset()
    try {
      const read = await worker.current!.read(await chosen.arrayBuffer())
      if (read.why !== undefined) setWrong(read.why)
      else {
        setFile({ name: chosen.name, read })
        await lookThrough(read.mapping!)
      }
    } catch {
      setWrong('That file could not be read. Nothing was changed.')
    }
    setBusy(false)
  }
  const takes = (d: ClientDraft) => {
    const status = statusOf(d)
    if (status === 'unread') return false
    return turned.has(d.line) ? status === 'same' : status === 'new'
  }
  const chosen = drafts.filter(takes)
  const bring = useMutation({
    mutationFn: () => {
      const skin = skinToBegin(SERVICES[service].family)
      return call('addImport', {
        body: {
          id: newId(),
          source: file!.name.slice(0, 120),
          clients: chosen.map(
            ({ line: _line, problems: _problems, mended: _mended, same: _same, ...d }) => ({
              id: newId(),
              ...d,
              service,
              skin,
            }),
          ),
        },
      })
    },
    onSuccess: () => {
      setFile(undefined)
      setDrafts([])
      for (const key of ['clients', 'known-clients', 'today', 'imports']) {
        void cache.invalidateQueries({ queryKey: [key] })
      }
    },
  })
  const counts = useMemo(() => {
    const n: Record<Status, number> = { new: 0, same: 0, unread: 0 }
    for (const d of drafts) n[statusOf(d)]++
    return n
  }, [drafts])
  const unread = file?.read.unread ?? []
  return (
    <main className="page">
      <div className="page-head">
        <h1>Bring clients in</h1>
        <p>
          from a vCard or a CSV file · <Link to="/clients">back to all clients</Link>
        </p>
      </div>
      <p className="buttons">
        <label className={file ? 'strong' : 'strong deep'}>
          {file ? 'Another file …' : 'Choose a file …'}
          <input
            type="file"
            accept=".vcf,.vcard,.csv,.txt,text/vcard,text/csv"
            className="visually-hidden"
            onChange={(e) => {
              const chosenFile = e.currentTarget.files?.[0]
              e.currentTarget.value = ''
              if (chosenFile) void open(chosenFile)
            }}
          />
        </label>
        {busy && <span role="status">Reading …</span>}
      </p>
      {wrong && (
        <p role="alert" className="problem">
          {wrong}
        </p>
      )}
      {bring.isError && (
        <p role="alert" className="problem">
          {bring.error.message}
        </p>
      )}
      {bring.data && <p role="status">{bring.data.clients} clients were brought in.</p>}
      {file && (
        <>
          <MappingRow read={file.read} mapping={mapping} onMapping={(m) => void lookThrough(m)} />
          <div className="row-between">
            <div className="switch wrap" role="group" aria-label="Which lines to show">
              <button aria-pressed={filter === undefined} onClick={() => setFilter(undefined)}>
                All {drafts.length}
              </button>
              {(Object.keys(STATUS_WORDS) as Status[]).map((s) => (
                <button
                  key={s}
                  aria-pressed={filter === s}
                  onClick={() => setFilter(filter === s ? undefined : s)}
                >
                  {counts[s] + (s === 'unread' ? unread.length : 0)} {STATUS_WORDS[s]}
                </button>
              ))}
            </div>
            <label>
              All come for{' '}
              <select
                className="text-input inline"
                value={service}
                onChange={(e) => setService(e.currentTarget.value as ServiceId)}
              >
                {SERVICE_IDS.map((id) => (
                  <option key={id} value={id}>
                    {SERVICES[id].name}
                  </option>
                ))}
              </select>
            </label>
            <Button
              variant="strong"

              disabled={chosen.length === 0 || bring.isPending || busy}
              onClick={() => bring.mutate()}
            >
              {bring.isPending ? 'Bringing in …' : `Bring in ${chosen.length}`}
            </Button>
          </div>
          <Preview
            drafts={drafts.filter((d) => filter === undefined || statusOf(d) === filter)}
            unread={filter === undefined || filter === 'unread' ? unread : []}
            takes={takes}
            onTurn={(line) =>
              setTurned((was) => {
                const next = new Set(was)
                if (!next.delete(line)) next.add(line)
                return next
              })
            }
          />
        </>
      )}
      <Imports />
    </main>
  )
}

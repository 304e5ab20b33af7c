/** Importing clients from a file: looked through first, then all together, and taken back together. */
import { Problem } from '../ui/Panel.tsx'
import { Button, Group, Loader, Stack, Text, Title } from '@mantine/core'
import { Dropzone } from '@mantine/dropzone'
import '@mantine/dropzone/styles.layer.css'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { wrap, type Remote } from 'comlink'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import { skinToBegin } from '../../core/client.ts'
import type { ClientDraft, Mapping } from '../../core/formats/index.ts'
import { SERVICE_IDS, SERVICES, type ServiceId } from '../../core/services/index.ts'
import { call, GivenUp } from '../api/call.ts'
import { endWorking, tellWorking } from '../ui/notices.ts'
import { useUndoImport } from './useUndoImport.ts'
import { newId } from '../state/words.ts'
import type { ImportWorker, ReadFile } from '../workers/import.worker.ts'
import { MappingRow, Preview } from './ImportPreview.tsx'
import { named, PickOne } from '../ui/PickOne.tsx'
import { Words } from '../ui/Words.tsx'
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
  const undo = useUndoImport()
  const bring = useMutation({
    mutationFn: async () => {
      const all = service
      const id = newId()
      const give = new AbortController()
      const many = chosen.length
      tellWorking(id, `${many} ${many === 1 ? 'client is' : 'clients are'} being imported …`, () =>
        give.abort(),
      )
      const told = await call('addImport', {
        signal: give.signal,
        body: {
          id,
          source: file!.name.slice(0, 120),
          clients: chosen.map(
            ({ line: _line, problems: _problems, mended: _mended, same: _same, ...d }) => {
              const own = d.service ?? all
              return {
                id: newId(),
                ...d,
                service: own,
                skin: skinToBegin(SERVICES[own].family),
              }
            },
          ),
        },
      }).catch(async (error: unknown) => {
        endWorking(id)
        // What came in all the same goes out again, as a whole.
        if (error instanceof GivenUp)
          await call('undoImport', { params: { id } }).catch(() => undefined)
        throw error
      })
      endWorking(id, {
        kind: 'done',
        words: `${told.clients} clients were imported.`,
        act: { words: 'Undo', go: () => undo.mutate(id) },
      })
      return told
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
    <Stack component="main" className="page" gap="md">
      <Group align="baseline" gap="md">
        <Title order={1}>Import clients</Title>
        <Text c="dimmed">
          from a vCard or a CSV file · <Link to="/clients">back to all clients</Link>
        </Text>
      </Group>
      <Group gap="sm">
        <Dropzone
          onDrop={(files) => files[0] && void open(files[0])}
          multiple={false}
          accept={['text/vcard', 'text/csv', 'text/plain', '.vcf', '.csv']}
          useFsAccessApi={false}
          inputProps={{ 'aria-label': 'File with clients' }}
          p="md"
          bd="1px dashed var(--edge)"
          bg="transparent"
          w={420}
        >
          <Text fw={650}>{file ? 'Another file …' : 'Choose a file …'}</Text>
          <Text size="sm" c="dimmed">
            or drop it here
          </Text>
        </Dropzone>
        {busy && <Loader aria-label="Reading" role="status" />}
      </Group>
      {wrong && <Problem>{wrong}</Problem>}
      {bring.isError &&
        (bring.error instanceof GivenUp ? (
          <Text role="status">Given up: nobody was imported. The file is still here.</Text>
        ) : (
          <Problem>{bring.error.message}</Problem>
        ))}
      {file && (
        <>
          <MappingRow read={file.read} mapping={mapping} onMapping={(m) => void lookThrough(m)} />
          <Group justify="space-between" gap="sm">
            <Words
              label="Which lines to show"
              data={[
                { value: 'all' as const, label: `All ${drafts.length}` },
                ...(Object.keys(STATUS_WORDS) as Status[]).map((st) => ({
                  value: st,
                  label: `${counts[st] + (st === 'unread' ? unread.length : 0)} ${STATUS_WORDS[st]}`,
                })),
              ]}
              value={filter ?? 'all'}
              onChange={(v) => setFilter(v === 'all' ? undefined : v)}
            />
            <PickOne
              label={mapping.service === undefined ? 'All come for' : 'Where none is named'}
              w={230}
              data={named(SERVICE_IDS, (id) => SERVICES[id].name)}
              value={service}
              onChange={setService}
            />
            <Button
              variant="strong"

              disabled={chosen.length === 0 || bring.isPending || busy}
              onClick={() => bring.mutate()}
            >
              {bring.isPending ? 'Importing …' : `Import ${chosen.length}`}
            </Button>
          </Group>
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
    </Stack>
  )
}

/** The map as files, out and in. */
import { Problem } from '../../ui/Panel.tsx'
import { Alert, Button, FileButton, Group, Title } from '@mantine/core'
import { useState } from 'react'
import { DomainError } from '../../../core/errors.ts'
import {
  headId,
  MOST_BYTES,
  readGrowthMap,
  withoutKnown,
  writeGrowthMap,
  type ImportReport,
} from '../../../core/formats/index.ts'
import type { Reading } from '../../../core/grain/index.ts'
import { ZONE_IDS } from '../../../core/zones/index.ts'
import { useHead } from '../../head/loadHead.ts'
import { newId } from '../../state/words.ts'
import { useFieldReadings, type StationProps } from '../useStation.ts'
import { saveFile } from '../../ui/saveFile.ts'
import { mapPicture } from './mapPicture.ts'
import type { useFieldSummary, useMapEditing } from './useMap.ts'

export function FilesOut({
  visit,
  summary,
}: Pick<StationProps, 'visit'> & { summary: ReturnType<typeof useFieldSummary> }) {
  const head = useHead()
  const readings = useFieldReadings(visit)
  const name = `growth-map-${new Date(visit.endedAtMs ?? Date.now()).toISOString().slice(0, 10)}`
  const ready = head.data !== undefined && summary !== undefined
  const [busy, setBusy] = useState(false)
  const out = {
    json: () =>
      saveFile(
        `${name}.json`,
        JSON.stringify(
          writeGrowthMap(
            headId(head.data!.packed),
            visit.readings,
            summary!.zones,
            summary!.whorls,
            Date.now(),
          ),
          null,
          1,
        ),
        'application/json',
      ),
    csv: async () => {
      const { writeReadingsCsv } = await import('../../../core/formats/readingsCsv.ts')
      saveFile(`${name}.csv`, writeReadingsCsv(visit.readings), 'text/csv')
    },
    svg: async () =>
      saveFile(`${name}.svg`, await mapPicture(head.data!, summary!), 'image/svg+xml'),
    glb: async () => {
      const [{ headGltf }, field] = await Promise.all([
        import('../../../core/formats/headGltf.ts'),
        head.data!.worker.vertices(readings),
      ])
      const bytes = await headGltf(head.data!.packed.display, field.vectors, field.trust, ZONE_IDS)
      saveFile(`${name}.glb`, bytes, 'model/gltf-binary')
    },
  }
  const go = async (work: () => void | Promise<void>) => {
    setBusy(true)
    try {
      await work()
    } finally {
      setBusy(false)
    }
  }
  return (
    <section>
      <Title order={3}>Export</Title>
      <Group gap="xs">
        <Button size="sm" disabled={!ready || busy} onClick={() => void go(out.json)}>
          Map, JSON
        </Button>
        <Button size="sm" disabled={!ready || busy} onClick={() => void go(out.csv)}>
          Readings, CSV
        </Button>
        <Button size="sm" disabled={!ready || busy} onClick={() => void go(out.svg)}>
          Flat views, SVG
        </Button>
        <Button size="sm" disabled={!ready || busy} onClick={() => void go(out.glb)}>
          Head and field, glTF
        </Button>
      </Group>
    </section>
  )
}

export function FilesIn({
  map,
  readings,
}: {
  map: ReturnType<typeof useMapEditing>
  readings: readonly Reading[]
}) {
  const head = useHead()
  const [problem, setProblem] = useState<string>()
  const [report, setReport] = useState<ImportReport & { name: string }>()
  const [done, setDone] = useState<string>()
  const open = async (file: File) => {
    setProblem(undefined)
    setReport(undefined)
    setDone(undefined)
    try {
      if (file.size > MOST_BYTES) {
        throw new DomainError(
          'bad-file',
          `This file is ${(file.size / 1e6).toFixed(1)} MB; at most ${MOST_BYTES / 1e6} MB are opened. Nothing was changed.`,
        )
      }
      const text = await file.text()
      const { nearest, packed, zoneById } = head.data!
      const place = (p: readonly [number, number, number]) => nearest(p)
      const now = Date.now()
      const read = /\.csv$/i.test(file.name)
        ? (await import('../../../core/formats/readingsCsv.ts')).readReadingsCsv(
            text,
            place,
            (zone) => zoneById.get(zone)?.centre,
            now,
          )
        : readGrowthMap(text, headId(packed), place, now)
      setReport({ ...withoutKnown(read, readings), name: file.name })
    } catch (error) {
      if (!(error instanceof DomainError)) throw error
      setProblem(`${file.name}: ${error.message}`)
    }
  }
  const take = () => {
    if (!report) return
    map.make({ remove: [], add: report.taken.map((r) => ({ ...r, id: newId() })) })
    setDone(
      `${report.taken.length} ${report.taken.length === 1 ? 'reading' : 'readings'} taken in. Undo takes them all back.`,
    )
    setReport(undefined)
  }
  return (
    <section>
      <Title order={3}>Import</Title>
      <Group gap="xs">
        <FileButton
          accept=".json,.csv,application/json,text/csv"
          inputProps={{ 'aria-label': 'Growth map or readings' }}
          onChange={(file) => file && void open(file)}
        >
          {(props) => (
            <Button {...props} size="sm" disabled={map.frozen || !head.data}>
              Open a map or readings …
            </Button>
          )}
        </FileButton>
      </Group>
      {problem && <Problem>{problem}</Problem>}
      {report && (
        <Alert role="status">
          <p>
            <b>{report.name}</b>: {report.taken.length}{' '}
            {report.taken.length === 1 ? 'reading' : 'readings'} can be taken
            {report.left.length > 0 ? `, ${report.left.length} not:` : '.'}
          </p>
          {report.left.length > 0 && (
            <ul>
              {report.left.slice(0, 6).map((l, i) => (
                <li key={i}>
                  {l.what}: {l.why}
                </li>
              ))}
              {report.left.length > 6 && <li>and {report.left.length - 6} more</li>}
            </ul>
          )}
          <Group gap="xs">
            <Button disabled={report.taken.length === 0} onClick={take}>
              Take them in
            </Button>
            <Button size="sm" onClick={() => setReport(undefined)}>
              Leave it
            </Button>
          </Group>
        </Alert>
      )}
      {done && (
        <p role="status">
          {done}{' '}
          <Button
            variant="bare"
            size="sm"

            onClick={() => {
              map.undo()
              setDone(undefined)
            }}
          >
            Undo
          </Button>
        </p>
      )}
    </section>
  )
}

/** A file of clients looked through: which column is what, and what becomes of each line. */
import {
  IMPORT_FIELD_IDS,
  IMPORT_FIELDS,
  type ClientDraft,
  type ImportField,
  type Mapping,
} from '../../core/formats/index.ts'
import type { ReadFile } from '../workers/import.worker.ts'

/** Lines shown at once; the rest is counted. */
const SHOWN = 60

export function MappingRow({
  read,
  mapping,
  onMapping,
}: {
  read: ReadFile
  mapping: Mapping
  onMapping: (m: Mapping) => void
}) {
  return (
    <fieldset className="mapping">
      <legend>Which column is what</legend>
      {IMPORT_FIELD_IDS.map((field: ImportField) => (
        <label key={field}>
          {IMPORT_FIELDS[field].title}
          <select
            className="text-input"
            value={mapping[field] ?? ''}
            onChange={(e) => {
              const { [field]: _was, ...rest } = mapping
              const value = e.currentTarget.value
              onMapping(value === '' ? rest : { ...rest, [field]: Number(value) })
            }}
          >
            <option value="">–</option>
            {read.columns!.map((c, i) => (
              <option key={i} value={i}>
                {c}
                {read.samples?.[i] ? ` (${read.samples[i]})` : ''}
              </option>
            ))}
          </select>
        </label>
      ))}
    </fieldset>
  )
}

export function Preview({
  drafts,
  unread,
  takes,
  onTurn,
}: {
  drafts: readonly ClientDraft[]
  unread: NonNullable<ReadFile['unread']>
  takes: (d: ClientDraft) => boolean
  onTurn: (line: number) => void
}) {
  const more = drafts.length + unread.length - SHOWN
  return (
    <>
      <div
        className="scroll preview"
        tabIndex={0}
        role="region"
        aria-label="What would be brought in"
      >
        <table className="list tight">
          <thead>
            <tr>
              <th scope="col">Take</th>
              <th scope="col">Line</th>
              <th scope="col">Name</th>
              <th scope="col">Does</th>
              <th scope="col">Telephone</th>
              <th scope="col">E-mail</th>
              <th scope="col">What was noticed</th>
            </tr>
          </thead>
          <tbody>
            {unread.slice(0, SHOWN).map((u) => (
              <tr key={`u${u.line}`} className="soft">
                <td />
                <td className="num">{u.line}</td>
                <td colSpan={4}>not read</td>
                <td>{u.why}</td>
              </tr>
            ))}
            {drafts.slice(0, Math.max(0, SHOWN - unread.length)).map((d) => (
              <tr key={d.line}>
                <td>
                  <input
                    type="checkbox"
                    aria-label={`Take ${d.name || `line ${d.line}`}`}
                    checked={takes(d)}
                    disabled={d.problems.length > 0}
                    onChange={() => onTurn(d.line)}
                  />
                </td>
                <td className="num">{d.line}</td>
                <td>
                  {d.name}
                  {d.calledName && <small>“{d.calledName}”</small>}
                </td>
                <td>{d.occupation}</td>
                <td>{d.phone}</td>
                <td>{d.email}</td>
                <td>
                  {[
                    ...d.problems,
                    ...(d.same !== undefined ? [`Seems to be ${d.same}.`] : []),
                    ...d.mended,
                  ].join(' ')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {more > 0 && <p className="soft">and {more} more lines like these.</p>}
    </>
  )
}

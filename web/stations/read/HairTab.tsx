/** What kind of hair grows where: painted over zones, over what was told at Ask; and strays to tweeze first. */
import { HAIR_TONES } from '../../../core/palette.ts'
import { hairIn } from '../../../core/client.ts'
import type { StrokePoint } from '../../../core/grain/index.ts'
import {
  COARSENESSES,
  CURLS,
  DENSITIES,
  GREYS,
  HAIR_KINDS,
  hairWords,
  type ZoneHair,
} from '../../../core/hair/index.ts'
import { zoneName, isSkin, type ZoneId } from '../../../core/zones/index.ts'
import { useHotkeys } from '@mantine/hooks'
import { useMemo, useState } from 'react'
import { useSaveNotes } from '../../api/visitWrites.ts'
import { useHead, type Hit } from '../../head/loadHead.ts'
import type { ZoneTint } from '../../head/shared.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { viewOf } from '../../../core/head/index.ts'
import { useView } from '../../state/view.ts'
import { newId } from '../../state/words.ts'
import { useChosenInView } from '../useChosenInView.ts'
import { isFrozen, useFlowLayer, useServiceZones, type StationProps } from '../useStation.ts'
import { useLatest } from './useMap.ts'

const ROWS = [
  ['kind', 'Kind', HAIR_KINDS],
  ['coarseness', 'Coarseness', COARSENESSES],
  ['density', 'Density', DENSITIES],
  ['curl', 'Curl', CURLS],
  ['grey', 'Grey', GREYS],
] as const
type Attribute = (typeof ROWS)[number][0]

/** Ink of a value on the head: the more, the darker. */

export function HairTab({ page, visit }: StationProps) {
  const save = useSaveNotes(visit.id)
  const frozen = isFrozen(visit)
  const head = useHead()
  const flow = useFlowLayer(visit)
  const zones = useServiceZones(visit)
  const { hair, strays } = visit.notes
  const { skin } = page.client
  const [brush, setBrush] = useState<ZoneHair>({})
  const [looking, setLooking] = useState<Attribute>('kind')
  const [tweeze, setTweeze] = useState(false)
  const chosen = useView((s) => s.chosen)
  const choose = useView((s) => s.choose)
  const turnTo = useView((s) => s.turnTo)
  const list = useChosenInView(chosen)

  const usual = (zone: ZoneId): ZoneHair => ({
    kind: hairIn(zone, skin.faceHair) === 'vellus' ? 'vellus' : 'terminal',
    coarseness: skin.coarseness,
    density: 'medium',
    curl: skin.curl,
    grey: 'none',
  })
  const holds = Object.keys(brush).length > 0
  const paint = (ids: readonly ZoneId[], value: ZoneHair) =>
    save.change((now) => ({
      hair: {
        ...now.hair,
        ...Object.fromEntries(ids.map((id) => [id, { ...now.hair[id], ...value }])),
      },
    }))
  const forget = (id: ZoneId) =>
    save.change((now) => ({
      hair: Object.fromEntries(Object.entries(now.hair).filter(([zone]) => zone !== id)),
    }))
  const onTap = useLatest((hit: Hit) => {
    if (frozen || !isSkin(hit.zoneId)) return
    if (tweeze) {
      const { zoneId, point, normal } = hit
      save.change((now) => ({ strays: [...now.strays, { id: newId(), zoneId, point, normal }] }))
    } else if (holds) paint([hit.zoneId], brush)
  })
  const onStroke = useLatest((points: readonly StrokePoint[]) => {
    const ids = [...new Set(points.map((p) => p.zoneId).filter(isSkin))]
    if (ids.length > 0) paint(ids, brush)
  })
  const values = ROWS.find((r) => r[0] === looking)![2] as readonly string[]
  const tints = useMemo<ZoneTint[]>(
    () =>
      zones.map((zoneId) => {
        const value = hair[zoneId]?.[looking] ?? usual(zoneId)[looking]!
        const at = values.indexOf(value)
        return {
          zoneId,
          colour: HAIR_TONES[Math.round((at * 3) / (values.length - 1))]!,
          opacity: hair[zoneId]?.[looking] === undefined ? 0.25 : 0.6,
        }
      }),
    // `usual` depends on the client's skin alone.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [zones, hair, looking, values, skin],
  )
  useHeadLayers(
    useMemo(
      () => ({
        flow,
        tints,
        spots: strays.map((s) => ({
          id: s.id,
          point: s.point,
          normal: s.normal,
          radiusMm: 2,
          name: 'stray',
          light: true,
        })),
        onTap,
        ...(!frozen && holds && !tweeze && { onStroke }),
      }),
      [flow, tints, strays, onTap, onStroke, frozen, holds, tweeze],
    ),
  )
  useHotkeys([['Z', () => !frozen && save.undo()]])
  const show = (id: ZoneId) => {
    choose(id)
    const record = head.data?.zoneById.get(id)
    if (record) {
      const v = viewOf(record.centre.normal)
      turnTo(v.yawDeg, v.pitchDeg)
    }
  }
  return (
    <>
      <h1>Hair</h1>
      {save.error && (
        <p role="alert" className="problem">
          {save.error.message}
        </p>
      )}
      <p className="soft">
        {tweeze
          ? 'Tap each dark stray. They are tweezed before the blade: they dull it and hurt.'
          : holds
            ? 'Tap a zone or drag over several to paint them. What you leave open stays as told at Ask.'
            : 'Choose what you see, then paint it on the head. Faint zones are as told at Ask.'}
      </p>
      <div className="hair-brush">
        {ROWS.map(([id, name, choices]) => (
          <div key={id} className="hair-row">
            <button
              className="link"
              aria-pressed={looking === id}
              onClick={() => setLooking(id)}
              title="Show this on the head"
            >
              {name}
            </button>
            <div className="switch" role="group" aria-label={name}>
              {choices.map((c) => (
                <button
                  key={c}
                  disabled={frozen}
                  aria-pressed={brush[id] === c}
                  onClick={() => {
                    setLooking(id)
                    setTweeze(false)
                    setBrush(({ [id]: old, ...rest }) => (old === c ? rest : { ...rest, [id]: c }))
                  }}
                >
                  {c}
                </button>
              ))}
            </div>
          </div>
        ))}
        <div className="line-tools">
          <button disabled={frozen || !save.canUndo} onClick={save.undo}>
            Undo <kbd>Z</kbd>
          </button>
          <button aria-pressed={tweeze} disabled={frozen} onClick={() => setTweeze((t) => !t)}>
            Mark strays
          </button>
          {chosen && isSkin(chosen) && (
            <>
              <button
                disabled={frozen || (!holds && !tweeze)}
                onClick={() => {
                  if (tweeze) {
                    const centre = head.data?.zoneById.get(chosen)?.centre
                    if (centre)
                      save.change((now) => ({
                        strays: [...now.strays, { id: newId(), zoneId: chosen, ...centre }],
                      }))
                  } else paint([chosen], brush)
                }}
              >
                {tweeze ? 'One on ' : 'Paint '}
                {zoneName(chosen)}
              </button>
              {hair[chosen] && (
                <button disabled={frozen} onClick={() => forget(chosen)}>
                  As told at Ask
                </button>
              )}
            </>
          )}
        </div>
      </div>
      <div className="scroll" ref={list}>
        <table className="list tight pick">
          <thead>
            <tr>
              <th scope="col">Zone</th>
              <th scope="col">Hair</th>
              <th scope="col" className="num">
                Strays
              </th>
            </tr>
          </thead>
          <tbody>
            {zones.map((id) => {
              const own = hair[id]
              const count = strays.filter((s) => s.zoneId === id).length
              return (
                <tr
                  key={id}
                  className={`${id === chosen ? 'chosen' : ''} ${own ? '' : 'guess'}`}
                  onClick={() => show(id)}
                >
                  <td>
                    <button className="row-button" aria-pressed={id === chosen}>
                      {zoneName(id)}
                    </button>
                  </td>
                  <td>
                    <span title={own ? undefined : 'as told at Ask'}>
                      {hairWords({ ...usual(id), ...own })}
                    </span>
                  </td>
                  <td className="num">{count || ''}</td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </div>
    </>
  )
}

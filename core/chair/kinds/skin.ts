/** Events of the skin: nicks, redness, the first and the second look, what is felt. */
import type { ZoneId } from '../../zones/index.ts'
import type { ChairDetail } from '../events.ts'
import { always, refuse, type EventKind } from './kind.ts'

export const SKIN_EVENTS = {
  nick: {
    words: 'A nick',
    takes: ['zoneId', 'point', 'normal', 'sizeMm', 'did', 'contact'],
    inAPause: always,
    effect: ({ state, event, stepId, current }) => ({
      ...state,
      nicks: [
        ...state.nicks,
        {
          ...{ id: event.id, stepId, atMs: event.atMs },
          // A step may go on without the zone that it was in then.
          ...(stepId === current?.id && current.zoneId && { zoneId: current.zoneId }),
          ...toldOf(event.detail),
        },
      ],
    }),
  },
  'nick-told': {
    words: 'More of a nick',
    takes: ['of', 'zoneId', 'point', 'normal', 'sizeMm', 'did', 'contact'],
    inAPause: always,
    effect: ({ state, event: { detail } }) => {
      if (!state.nicks.some((n) => n.id === detail?.of)) throw refuse('That nick is not known.')
      return {
        ...state,
        nicks: state.nicks.map((n) => (n.id === detail?.of ? { ...n, ...toldOf(detail) } : n)),
      }
    },
  },
  redness: {
    words: 'Redness',
    takes: ['zoneId', 'point', 'normal', 'grade', 'welt'],
    inAPause: always,
    effect: ({ state, event: { id, atMs, detail }, stepId, current }) => ({
      ...state,
      redness: [
        ...state.redness,
        {
          ...{ id, stepId, atMs },
          zoneId: detail?.zoneId ?? (current?.zoneId as ZoneId),
          grade: detail?.grade ?? 2,
          welt: detail?.welt ?? false,
        },
      ],
    }),
  },
  looked: {
    words: 'First look',
    takes: ['zones'],
    effect: ({ state, event }) => ({ ...state, looked: event.detail?.zones ?? [] }),
  },
  felt: {
    words: 'Felt which way the hair grows',
    takes: ['zoneId', 'point', 'normal', 'tangent'],
    effect: ({ state, event: { id, atMs, stepId, detail }, current }) => {
      const { zoneId, point, normal, tangent } = detail ?? {}
      if (current?.kind !== 'feel' || current.id !== stepId || current.zoneId !== zoneId) {
        throw refuse('That is not what is felt now. Nothing was counted; reload to catch up.')
      }
      if (!point || !normal || !tangent || Math.hypot(...tangent) < 0.5) {
        throw refuse('Nobody said which way it was felt.')
      }
      return {
        ...state,
        felt: { ...state.felt, [current.zoneId!]: { id, atMs, point, normal, tangent } },
        outcomes: { ...state.outcomes, [current.id]: 'done' },
        index: state.index + 1,
      }
    },
  },
  'patches-left': {
    words: 'Missed patches left as they are',
    takes: ['patches'],
    effect: ({ state, event }) => ({
      ...state,
      patchesLeft: [
        ...state.patchesLeft,
        ...(event.detail?.patches ?? []).map(({ zoneId, point }) => ({ zoneId, point })),
      ],
    }),
  },
} as const satisfies Record<string, EventKind>

function toldOf(detail: ChairDetail | undefined) {
  if (!detail) return {}
  const { zoneId, point, normal, sizeMm, did, contact } = detail
  return {
    ...(zoneId !== undefined && { zoneId }),
    ...(point !== undefined && { point, normal }),
    ...(sizeMm !== undefined && { sizeMm }),
    ...(did !== undefined && { did }),
    ...(contact !== undefined && { contact }),
  }
}

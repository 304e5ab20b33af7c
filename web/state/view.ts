/** How the head is turned, which zone is chosen, which one is under the pointer. */
import { useMemo } from 'react'
import { create } from 'zustand'
import { nearestView, viewAxes, VIEWS, type ViewAxes, type ViewId } from '../../core/head/index.ts'
import type { ZoneId } from '../../core/zones/index.ts'

export interface View {
  readonly yawDeg: number
  readonly pitchDeg: number
  readonly zoom: number
}

interface ViewState extends View {
  /** The named view shown, or null while turned by hand. */
  readonly named: ViewId | null
  readonly chosen: ZoneId | null
  readonly hovered: ZoneId | null
  /** This screen cannot draw in WebGL, or was asked for the flat views: only the named views are shown. */
  readonly flat: boolean
  readonly goFlat: () => void
  readonly show: (id: ViewId) => void
  /** Turns to show a direction, smoothly. */
  readonly turnTo: (yawDeg: number, pitchDeg: number, zoom?: number) => void
  readonly turnBy: (yawDeg: number, pitchDeg: number) => void
  readonly zoomBy: (factor: number) => void
  readonly choose: (zone: ZoneId | null) => void
  readonly hover: (zone: ZoneId | null) => void
}

/** True when this screen can draw in WebGL. `?flat` in the address asks for the flat views. */
function webGlWorks(): boolean {
  try {
    if (new URLSearchParams(window.location.search).has('flat')) return false
    return Boolean(document.createElement('canvas').getContext('webgl2'))
  } catch {
    return false
  }
}

const TURN_MS = 380
const PITCH_MOST = 88
let running = 0

const clampZoom = (z: number) => Math.min(5, Math.max(0.8, z))
/** The nearer way round. */
const nearer = (from: number, to: number) => from + ((((to - from + 180) % 360) + 360) % 360) - 180

export const useView = create<ViewState>((set, get) => {
  const glide = (to: View, named: ViewId | null) => {
    const from = get()
    const target = nearer(from.yawDeg, to.yawDeg)
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches
    const ticket = ++running
    if (still) {
      set({ ...to, named })
      return
    }
    const began = performance.now()
    const frame = (now: number) => {
      if (ticket !== running) return
      const t = Math.min(1, Math.max(0, (now - began) / TURN_MS))
      const ease = t * t * (3 - 2 * t)
      set({
        yawDeg: from.yawDeg + (target - from.yawDeg) * ease,
        pitchDeg: from.pitchDeg + (to.pitchDeg - from.pitchDeg) * ease,
        zoom: from.zoom + (to.zoom - from.zoom) * ease,
      })
      if (t < 1) requestAnimationFrame(frame)
      else set({ yawDeg: to.yawDeg })
    }
    set({ named })
    requestAnimationFrame(frame)
  }
  return {
    yawDeg: 0,
    pitchDeg: 0,
    zoom: 1,
    named: 'front',
    chosen: null,
    hovered: null,
    flat: !webGlWorks(),
    goFlat: () => set({ flat: true }),
    show: (id) => glide({ yawDeg: VIEWS[id].yawDeg, pitchDeg: VIEWS[id].pitchDeg, zoom: 1 }, id),
    turnTo: (yawDeg, pitchDeg, zoom = get().zoom) => glide({ yawDeg, pitchDeg, zoom }, null),
    turnBy: (yaw, pitch) => {
      running++
      set((s) => ({
        yawDeg: s.yawDeg + yaw,
        pitchDeg: Math.min(PITCH_MOST, Math.max(-PITCH_MOST, s.pitchDeg + pitch)),
        named: null,
      }))
    },
    zoomBy: (factor) => set((s) => ({ zoom: clampZoom(s.zoom * factor) })),
    choose: (chosen) => set({ chosen }),
    hover: (hovered) => {
      if (get().hovered !== hovered) set({ hovered })
    },
  }
})

/** Flat, only the named views can be shown: the one that was asked for, or the nearest to where the head is turned. */
export const useShownView = (): ViewId =>
  useView((s) => s.named ?? nearestView(s.yawDeg, s.pitchDeg))

/** The axes of the picture of the head that is shown. */
export function useShownAxes(): ViewAxes {
  const shows = useShownView()
  const yaw = useView((s) => (s.flat ? VIEWS[shows].yawDeg : s.yawDeg))
  const pitch = useView((s) => (s.flat ? VIEWS[shows].pitchDeg : s.pitchDeg))
  return useMemo(() => viewAxes(yaw, pitch), [yaw, pitch])
}

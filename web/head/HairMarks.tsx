/** Hair on the head as a current: ribbons that follow the field and drift slowly from root to tip. */
import { useThree } from '@react-three/fiber'
import { useEffect, useMemo } from 'react'
import { BufferAttribute, BufferGeometry, Color, DoubleSide, ShaderMaterial } from 'three'
import { STREAMLET_POINTS, type Streamlets } from '../../core/grain/index.ts'
import { ZONE_IDS, type ZoneId } from '../../core/zones/index.ts'
import { useView } from '../state/view.ts'

const VERTEX = /* glsl */ `
attribute vec2 place;
attribute vec4 look;
attribute float phase;
varying vec2 vPlace;
varying vec4 vLook;
varying float vPhase;
void main() {
  vPlace = place;
  vLook = look;
  vPhase = phase;
  gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0);
}`

/** A hair is a window on its ribbon: broad at the root, pointed at the tip; drifting, the window slides along and fades at the ends. */
const FRAGMENT = /* glsl */ `
uniform float time;
uniform float drifts;
varying vec2 vPlace;
varying vec4 vLook;
varying float vPhase;
void main() {
  float t = mix(0.5, fract(vPhase + time), drifts);
  float along = (vPlace.x - 0.3 * t) / 0.7;
  if (along < 0.0 || along > 1.0) discard;
  float half_ = min(1.0, 0.55 + 3.0 * along) * (1.0 - along);
  float edge = fwidth(vPlace.y);
  float ink = smoothstep(half_ + edge, half_ - edge, abs(vPlace.y));
  float fade = mix(1.0, smoothstep(0.0, 0.2, t) * (1.0 - smoothstep(0.8, 1.0, t)), drifts);
  float a = vLook.a * ink * fade;
  if (a < 0.01) discard;
  gl_FragColor = vec4(vLook.rgb, a);
  #include <colorspace_fragment>
}`

/** One drift from root to tip takes this long. */
const DRIFT_MS = 5200
const FRAME_MS = 66
/** Where a frame takes longer than this the drift would get into the way of the hand, so it rests. */
const SLOW_FRAME_MS = 60
let tooSlow = false

export function HairMarks({
  marks,
  colour,
  chosenColour,
  drift,
}: {
  marks: Streamlets
  colour: string
  chosenColour: string
  drift: boolean
}) {
  const invalidate = useThree((s) => s.invalidate)
  const chosen = useView((s) => s.chosen)
  const material = useMemo(
    () =>
      new ShaderMaterial({
        vertexShader: VERTEX,
        fragmentShader: FRAGMENT,
        uniforms: { time: { value: 0 }, drifts: { value: 0 } },
        transparent: true,
        side: DoubleSide,
        depthWrite: false,
        polygonOffset: true,
        polygonOffsetFactor: -4,
        polygonOffsetUnits: -4,
      }),
    [],
  )
  useEffect(() => () => material.dispose(), [material])
  const geometry = useMemo(() => ribbons(marks), [marks])
  const look = useMemo(() => {
    const values = new Float32Array(marks.count * STREAMLET_POINTS * 2 * 4)
    const plain = new Color(colour)
    const picked = new Color(chosenColour)
    const zone = ZONE_IDS.indexOf(chosen as ZoneId)
    let at = 0
    for (let m = 0; m < marks.count; m++) {
      const c = marks.zones[m] === zone ? picked : plain
      for (let i = 0; i < STREAMLET_POINTS * 2; i++) {
        values[at++] = c.r
        values[at++] = c.g
        values[at++] = c.b
        values[at++] = marks.ink[m]!
      }
    }
    return new BufferAttribute(values, 4)
  }, [marks, colour, chosenColour, chosen])
  useEffect(() => {
    geometry.setAttribute('look', look)
    invalidate()
  }, [geometry, look, invalidate])
  useEffect(() => () => geometry.dispose(), [geometry])
  useDrift(material, drift, invalidate)
  return <mesh geometry={geometry} material={material} />
}

/** Moves the drift on while it is wanted, seen and cheap. */
function useDrift(material: ShaderMaterial, wanted: boolean, invalidate: () => void): void {
  useEffect(() => {
    const still = window.matchMedia('(prefers-reduced-motion: reduce)')
    const forced = new URLSearchParams(window.location.search).has('drift')
    if (!wanted || still.matches || (tooSlow && !forced)) return
    const { time, drifts } = material.uniforms as Record<string, { value: number }>
    let frame = 0
    let last = 0
    const waits: number[] = []
    const go = (now: number) => {
      frame = requestAnimationFrame(go)
      if (document.hidden || now - last < FRAME_MS) return
      if (last > 0) {
        waits.push(now - last)
        if (waits.length > 12) waits.shift()
        const middle = [...waits].sort((a, b) => a - b)[waits.length >> 1]!
        if (!forced && waits.length >= 6 && middle > FRAME_MS + SLOW_FRAME_MS) {
          tooSlow = true
          cancelAnimationFrame(frame)
          drifts!.value = 0
          invalidate()
          return
        }
      }
      last = now
      drifts!.value = 1
      time!.value = (now / DRIFT_MS) % 1
      invalidate()
    }
    frame = requestAnimationFrame(go)
    return () => {
      cancelAnimationFrame(frame)
      drifts!.value = 0
    }
  }, [material, wanted, invalidate])
}

function ribbons(marks: Streamlets): BufferGeometry {
  const each = STREAMLET_POINTS * 2
  const place = new Float32Array(marks.count * each * 2)
  const phase = new Float32Array(marks.count * each)
  const indices = new Uint32Array(marks.count * (STREAMLET_POINTS - 1) * 6)
  let at = 0
  for (let m = 0; m < marks.count; m++) {
    const last = marks.points[m]! - 1
    // Neighbours must not drift in step.
    const own = (m * 0.618034) % 1
    for (let i = 0; i < STREAMLET_POINTS; i++) {
      const along = Math.min(1, i / last)
      const v = m * each + 2 * i
      place.set([along, -1, along, 1], 2 * v)
      phase[v] = phase[v + 1] = own
      if (i + 1 < STREAMLET_POINTS) {
        indices.set([v, v + 1, v + 2, v + 1, v + 3, v + 2], at)
        at += 6
      }
    }
  }
  const g = new BufferGeometry()
  g.setAttribute('position', new BufferAttribute(marks.positions, 3))
  g.setAttribute('place', new BufferAttribute(place, 2))
  g.setAttribute('phase', new BufferAttribute(phase, 1))
  g.setIndex(new BufferAttribute(indices, 1))
  return g
}

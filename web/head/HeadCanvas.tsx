/** The head in WebGL. Draws only when something has changed. */
import { Canvas, useThree } from '@react-three/fiber'
import { useEffect, useMemo } from 'react'
import {
  BufferAttribute,
  BufferGeometry,
  Color,
  LineBasicMaterial,
  LineSegments,
  MeshBasicMaterial,
  type DirectionalLight,
  type OrthographicCamera,
} from 'three'
import { VIEW_CENTRE, viewAxes } from '../../core/head/index.ts'
import { ZONE_IDS, type ZoneId } from '../../core/zones/index.ts'
import type { Streamlets } from '../../core/grain/index.ts'
import { useView } from '../state/view.ts'
import { drawnBySoftware } from './drawing.ts'
import { HairMarks } from './HairMarks.tsx'
import type { LoadedHead } from './loadHead.ts'
import { viewScale, type HeadColours, type ZoneTint } from './shared.ts'

export interface HeadCanvasProps {
  readonly head: LoadedHead
  readonly marks: Streamlets | undefined
  readonly tone: 'hair' | 'stroke' | 'rub'
  /** True while the hair may drift. */
  readonly drift: boolean
  /** Colour and opacity at each vertex, 4 numbers each, 0 to 1. */
  readonly wash: Float32Array | undefined
  readonly laneEdges: Float32Array | undefined
  readonly tints: readonly ZoneTint[]
  readonly colours: HeadColours
  readonly onLost: () => void
}

export function HeadCanvas({
  head,
  marks,
  tone,
  drift,
  wash,
  laneEdges,
  tints,
  colours,
  onLost,
}: HeadCanvasProps) {
  return (
    <Canvas
      orthographic
      frameloop="demand"
      flat
      dpr={[1, 2]}
      gl={{ antialias: !drawnBySoftware(), alpha: true, powerPreference: 'high-performance' }}
      camera={{ near: 1, far: 1200, position: [0, 0, 500] }}
      onCreated={({ gl }) => {
        gl.domElement.addEventListener('webglcontextlost', (e) => {
          e.preventDefault()
          onLost()
        })
      }}
      aria-hidden
    >
      <Rig />
      <Plaster head={head} colours={colours} />
      {tints.map((t) => (
        <Tint key={`${t.zoneId}:${t.colour}`} head={head} tint={t} />
      ))}
      <Borders lines={head.borders} colour={colours.border} opacity={0.4} />
      <Outlines head={head} colours={colours} />
      {wash && <Wash head={head} wash={wash} />}
      {laneEdges && laneEdges.length > 0 && (
        <Borders lines={laneEdges} colour={colours.hair} opacity={0.85} />
      )}
      {marks && marks.count > 0 && (
        <HairMarks
          marks={marks}
          colour={colours[tone]}
          chosenColour={colours.chosen}
          drift={drift}
        />
      )}
    </Canvas>
  )
}

/** The camera and the light that goes with it. */
function Rig() {
  const { camera, size, invalidate, scene } = useThree()
  const yawDeg = useView((s) => s.yawDeg)
  const pitchDeg = useView((s) => s.pitchDeg)
  const zoom = useView((s) => s.zoom)
  useEffect(() => {
    const axes = viewAxes(yawDeg, pitchDeg)
    const c = camera as OrthographicCamera
    const at = (k: 0 | 1 | 2) => VIEW_CENTRE[k] + 600 * axes.toward[k]
    c.position.set(at(0), at(1), at(2))
    c.up.set(...axes.up)
    c.lookAt(...VIEW_CENTRE)
    c.zoom = viewScale(size, zoom)
    c.updateProjectionMatrix()
    const light = scene.getObjectByName('key') as DirectionalLight | undefined
    const key = (k: 0 | 1 | 2) => -0.5 * axes.right[k] + 0.62 * axes.up[k] + 0.75 * axes.toward[k]
    light?.position.set(key(0), key(1), key(2))
    invalidate()
  }, [camera, scene, invalidate, size, yawDeg, pitchDeg, zoom])
  return (
    <>
      <ambientLight intensity={1.2} />
      <directionalLight name="key" intensity={2.1} />
    </>
  )
}

function Plaster({ head, colours }: { head: LoadedHead; colours: HeadColours }) {
  const invalidate = useThree((s) => s.invalidate)
  const geometry = useMemo(() => {
    const g = head.geometry.clone()
    const { occlusion } = head.packed.display
    const plaster = new Color(colours.plaster)
    const shade = new Color(colours.shade)
    const values = new Float32Array(occlusion.length * 3)
    const c = new Color()
    occlusion.forEach((open, v) => {
      c.copy(shade).lerp(plaster, (open / 255) ** 0.8)
      values.set([c.r, c.g, c.b], 3 * v)
    })
    g.setAttribute('color', new BufferAttribute(values, 3))
    return g
  }, [head, colours])
  useEffect(() => {
    invalidate()
    return () => geometry.dispose()
  }, [geometry, invalidate])
  return (
    <mesh geometry={geometry}>
      <meshLambertMaterial vertexColors />
    </mesh>
  )
}

/** One zone washed over with a colour. */
function Tint({ head, tint }: { head: LoadedHead; tint: ZoneTint }) {
  const invalidate = useThree((s) => s.invalidate)
  const geometry = useMemo(() => {
    const g = new BufferGeometry()
    g.setAttribute('position', head.geometry.getAttribute('position'))
    g.setIndex(head.geometry.getIndex())
    const [start, count] = head.packed.display.ranges[ZONE_IDS.indexOf(tint.zoneId)]!
    g.setDrawRange(3 * start, 3 * count)
    return g
  }, [head, tint.zoneId])
  const material = useMemo(
    () =>
      new MeshBasicMaterial({
        color: tint.colour,
        transparent: true,
        opacity: tint.opacity,
        depthWrite: false,
        polygonOffset: true,
        polygonOffsetFactor: -2,
        polygonOffsetUnits: -2,
      }),
    [tint.colour, tint.opacity],
  )
  useEffect(() => {
    invalidate()
    return () => {
      // Positions and indices belong to all tints: disposing with them would send them to the card anew.
      geometry.deleteAttribute('position')
      geometry.setIndex(null)
      geometry.dispose()
      material.dispose()
      invalidate()
    }
  }, [geometry, material, invalidate])
  return <mesh geometry={geometry} material={material} />
}

/** A colour at every vertex, over the plaster. */
function Wash({ head, wash }: { head: LoadedHead; wash: Float32Array }) {
  const invalidate = useThree((s) => s.invalidate)
  const geometry = useMemo(() => {
    const g = new BufferGeometry()
    g.setAttribute('position', head.geometry.getAttribute('position'))
    g.setAttribute('color', new BufferAttribute(wash, 4))
    g.setIndex(head.geometry.getIndex())
    return g
  }, [head, wash])
  useEffect(() => {
    invalidate()
    return () => {
      geometry.deleteAttribute('position')
      geometry.setIndex(null)
      geometry.dispose()
      invalidate()
    }
  }, [geometry, invalidate])
  return (
    <mesh geometry={geometry}>
      <meshBasicMaterial
        vertexColors
        transparent
        depthWrite={false}
        polygonOffset
        polygonOffsetFactor={-2}
        polygonOffsetUnits={-2}
      />
    </mesh>
  )
}

/** Lines on the surface: thin and inky. */
function Borders({
  lines,
  colour,
  opacity,
}: {
  lines: Float32Array
  colour: string
  opacity: number
}) {
  const invalidate = useThree((s) => s.invalidate)
  const object = useMemo(() => {
    const g = new BufferGeometry()
    g.setAttribute('position', new BufferAttribute(lines, 3))
    return new LineSegments(g, new LineBasicMaterial({ color: colour, transparent: true, opacity }))
  }, [lines, colour, opacity])
  useEffect(() => {
    invalidate()
    return () => {
      object.geometry.dispose()
      object.material.dispose()
      invalidate()
    }
  }, [object, invalidate])
  return <primitive object={object} />
}

/** The zone under the pointer and the one that is chosen, drawn round. */
function Outlines({ head, colours }: { head: LoadedHead; colours: HeadColours }) {
  const chosen = useView((s) => s.chosen)
  const hovered = useView((s) => s.hovered)
  const of = useMemo(() => {
    const made = new Map<ZoneId, Float32Array>()
    return (zone: ZoneId) => {
      const known = made.get(zone) ?? head.outline(zone)
      made.set(zone, known)
      return known
    }
  }, [head])
  return (
    <>
      {hovered && hovered !== chosen && (
        <Borders lines={of(hovered)} colour={colours.hair} opacity={1} />
      )}
      {chosen && <Borders lines={of(chosen)} colour={colours.chosen} opacity={1} />}
    </>
  )
}

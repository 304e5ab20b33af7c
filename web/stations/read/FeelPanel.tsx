/** The guided test: draw the finger as the head shows, say whether it slides or catches, until the direction is sure. */
import { Button, Group, SimpleGrid, Stack, Text } from '@mantine/core'
import { useFigures } from '../../state/figures.ts'
import { percentWords } from '../../../core/stats/index.ts'
import { useEffect, useMemo, useRef, useState } from 'react'
import {
  toDegrees,
  answerTest,
  beginTest,
  nextStroke,
  takeBackAnswer,
  TEST_CONSTANTS,
  testResult,
  wrongShare,
  type FeelTest,
  readingFromBearing,
  type Reading,
} from '../../../core/grain/index.ts'
import type { SurfacePoint } from '../../../core/head/index.ts'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
import type { HeadRing } from '../../head/shared.ts'
import { newId } from '../../state/words.ts'
import { PictureHour, usePictureAngle, useZoneTelling } from '../../head/telling.tsx'
import { Act, KeyButton } from '../../ui/Act.tsx'
import { Estimate } from '../../ui/Estimate.tsx'
import { PanelHead } from '../../ui/Panel.tsx'
import { StageActs } from '../../ui/Stage.tsx'
import { Dial } from './Dial.tsx'
import css from './Read.module.css'

/** The place that is tested and what its surroundings lead one to expect. */
export interface FeelPlace extends SurfacePoint {
  readonly zoneId: ZoneId
  readonly expected?: { direction: number; kappa: number }
}

export function FeelPanel({
  place,
  onRing,
  onFound,
  onClose,
}: {
  place: FeelPlace
  onRing: (ring: HeadRing | undefined) => void
  onFound: (reading: Reading) => void
  onClose: () => void
}) {
  const figures = useFigures()
  const [test, setTest] = useState<FeelTest>(() => beginTest(place.expected))
  const [kept, setKept] = useState<Reading>()
  const result = testResult(figures, test)
  const stroke = useMemo(
    () => (result.done ? undefined : nextStroke(figures, test).stroke),
    [figures, test, result.done],
  )

  useEffect(() => {
    onRing({
      zoneId: place.zoneId,
      point: place.point,
      normal: place.normal,
      odds: test.posterior,
      ...(stroke !== undefined && { stroke }),
      ...(test.answers.length > 0 && { found: result.direction }),
    })
    // The result follows from the test.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [place, test, stroke, onRing])
  useEffect(() => () => onRing(undefined), [onRing])

  const write = (t: FeelTest) => {
    const reading: Reading = {
      ...readingFromBearing(place.zoneId, place, testResult(figures, t).direction, {
        id: newId(),
        method: 'test',
        atMs: Date.now(),
      }),
      answers: t.answers.map((a) => ({ strokeDeg: toDegrees(a.stroke), catches: a.catches })),
    }
    setKept(reading)
    onFound(reading)
  }
  const answer = (catches: boolean) => {
    if (stroke === undefined) return
    const next = answerTest(figures, test, { stroke, catches })
    setTest(next)
    if (testResult(figures, next).sure) write(next)
  }
  const back = () => {
    if (kept || test.answers.length === 0) return
    setTest(takeBackAnswer(figures, test))
  }
  const first = useRef<HTMLButtonElement>(null)
  useEffect(() => first.current?.focus(), [])
  const tell = useZoneTelling()
  const way = tell(place.zoneId, stroke ?? result.direction, place)
  const angle = usePictureAngle(way)
  const half = Math.max(5, Math.round(toDegrees(result.halfWidth)))
  const count = test.answers.length
  const times = `${count} ${count === 1 ? 'answer' : 'answers'}`
  return (
    <Stack component="section" aria-label="Guided test" gap="md" flex={1}>
      <StageActs label="The test">
        <Act k="take-back" side="right" disabled={count === 0 || !!kept} onAct={back}>
          Take back
        </Act>
        <Act k="leave-test" side="right" onAct={onClose}>
          Leave
        </Act>
      </StageActs>
      <PanelHead title={`Feel: ${zoneName(place.zoneId)}`} />
      <Group gap="lg" wrap="nowrap">
        <Dial
          angle={angle}
          size={150}
          spread={count === 0 || stroke !== undefined ? undefined : result.halfWidth}
        />
        <div aria-live="polite">
          {stroke !== undefined ? (
            <>
              <p className="big">Draw {way?.told.text}</p>
              <PictureHour way={way} />
              <p>
                About 2 cm, lightly, with a fingertip, a dry pad or the edge of a card. Does it
                slide, or does it catch?
              </p>
            </>
          ) : kept ? (
            <>
              <p className="big">Grows {way?.told.text}</p>
              <PictureHour way={way} />
              <p>
                Written down after {times}, within about {half}°. Tap another place on the head to
                go on.
              </p>
            </>
          ) : (
            <>
              <p className="big">Not sure</p>
              <p>
                {times} do not settle it, about {percentWords(wrongShare(figures, test))} of them
                seem wrong: hair may turn here, or lie flat. Feel beside it, or keep “
                {way?.told.words}” as it is (within about {half}°).
              </p>
              <Button size="sm" onClick={() => write(test)}>
                Keep it
              </Button>
            </>
          )}
        </div>
      </Group>
      {stroke !== undefined && (
        <SimpleGrid cols={2}>
          <KeyButton k="slides" className={css.answer} ref={first} onAct={() => answer(false)}>
            Slides
          </KeyButton>
          <KeyButton
            k="catches"
            className={css.answer}
            bd="2px solid var(--coral)"
            onAct={() => answer(true)}
          >
            Catches
          </KeyButton>
        </SimpleGrid>
      )}
      <Text size="sm" c="dimmed">
        {count === 0 ? (
          <>
            Most places are sure after <Estimate of="grain-test">about ten answers</Estimate>. Some
            may be wrong: those that contradict one another make it ask on.
          </>
        ) : (
          <>
            {times}:{' '}
            {test.answers
              .map(
                (a) =>
                  `${tell(place.zoneId, a.stroke, place)?.told.words} it ${a.catches ? 'catches' : 'slides'}`,
              )
              .join(', ')}
            .{' '}
            {!kept &&
              `Now within about ${half}°; done at ${figures(TEST_CONSTANTS.sureWithinDeg)}°.`}
          </>
        )}
      </Text>
    </Stack>
  )
}

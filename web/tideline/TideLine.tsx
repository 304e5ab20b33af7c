/** The tide line along the bottom of a client's page: hair over time, skin beneath it, the next visit's window ahead. */
import { ActionIcon, Skeleton, UnstyledButton, useComputedColorScheme } from '@mantine/core'
import { IconArrowLeft, IconArrowRight } from '@tabler/icons-react'
import { lazy, Suspense, useState } from 'react'
import type { Tide } from '../../contract/types.ts'
import { useEarlierTide } from '../api/queries.ts'
import { Words } from '../ui/Words.tsx'
import { dateWords } from '../../core/time/index.ts'
import css from './TideLine.module.css'
import type { TideLineProps } from './TideChart.tsx'

const TideChart = lazy(() =>
  import('./TideChart.tsx').then(
    (m) => ({ default: m.TideChart }),
    () => ({ default: NotLoaded }),
  ),
)
function NotLoaded() {
  return <p className={css.empty}>The tide line could not be loaded. Reload the page to see it.</p>
}

export function TideLine({ clientId, ...props }: TideLineProps & { clientId: string }) {
  const [open, setOpen] = useState(true)
  const [back, setBack] = useState(0)
  const lamp = useComputedColorScheme('light') === 'dark'
  const works = [props.tide, ...props.tide.others]
  const [of, setOf] = useState<string>()
  const work = works.find((w) => w.id === of) ?? props.tide
  const earlier = useEarlierTide(clientId, back, work.id)
  const now: Tide = { ...props.tide, ...work }
  const tide = back === 0 ? now : (earlier.data ?? now)
  const begun = props.tide.curve.past.length > 0
  return (
    <section
      className={`${css.line} no-print`}
      data-closed={!(open && begun) || undefined}
      aria-label="Tide line"
    >
      {begun ? (
        <>
          <UnstyledButton className={css.fold} onClick={() => setOpen(!open)} aria-expanded={open}>
            {open ? 'Fold away' : 'Tide line'}
          </UnstyledButton>
          {open && works.length > 1 && (
            <div className={css.works}>
              <Words
                label="Hair of which work"
                size="sm"
                data={works.map((w) => [w.id, w.name] as const)}
                value={work.id}
                onChange={setOf}
              />
            </div>
          )}
          {open && tide.earlier && (
            <ActionIcon
              className={css.step}
              aria-label="Earlier visits"
              title="Earlier visits"
              onClick={() => setBack(back + 1)}
              disabled={earlier.isFetching}
            >
              <IconArrowLeft size={20} stroke={1.5} />
            </ActionIcon>
          )}
          {open && back > 0 && (
            <ActionIcon
              className={css.step}
              data-later
              aria-label="Later visits"
              title="Later visits"
              onClick={() => setBack(back - 1)}
            >
              <IconArrowRight size={20} stroke={1.5} />
            </ActionIcon>
          )}
        </>
      ) : (
        <p className={css.empty}>The tide line begins with the first visit.</p>
      )}
      <p className="hidden">{tideWords(tide)}</p>
      {open && begun && (
        <Suspense fallback={<Skeleton h={139} radius={0} />}>
          <TideChart {...props} tide={tide} lamp={lamp} />
        </Suspense>
      )}
    </section>
  )
}

/** The chart in words. */
export function tideWords(tide: Tide): string {
  const seen = tide.visits.filter((v) => v.endedAtMs !== null)
  const visits = seen
    .map(
      (v) =>
        `${dateWords(v.endedAtMs!)}: ${v.worstRedness === null ? 'skin not answered' : `redness ${v.worstRedness}`}${v.bumps === null ? '' : `, ${v.bumps} bumps`}${v.routine ? `, from here: ${v.routine}` : ''}`,
    )
    .join('. ')
  const next = tide.window
    ? `Good days for the next visit: ${dateWords(tide.window.fromMs)} to ${dateWords(tide.window.toMs)}.`
    : 'No next visit can be computed before the first.'
  const home = tide.home.map((h) => `${dateWords(h.atMs)}: at home, ${h.words}`).join('. ')
  return `${tide.hairWords}. ${visits || 'No visits yet'}. ${home && `${home}. `}${next}`
}

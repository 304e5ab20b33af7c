/** The lanes in working order. */
import { RowButton } from '../../ui/RowButton.tsx'
import { Button, Table } from '@mantine/core'
import { Fragment } from 'react'
import { serviceIn, type Lane, type Plan, type PlanStep } from '../../../core/plan/index.ts'
import { SERVICES, type ServiceId } from '../../../core/services/index.ts'
import css from './Plan.module.css'
import { RelationMark } from './RelationMark.tsx'

export function LaneList({
  plan,
  chosen,
  onShow,
  onUnskip,
  children,
}: {
  plan: Plan
  chosen: string | undefined
  onShow: (lane: Lane) => void
  onUnskip?: ((id: string) => void) | undefined
  /** Shown under the chosen lane. */
  children?: React.ReactNode
}) {
  const byId = new Map(plan.lanes.map((l) => [l.id, l]))
  const work = plan.steps.filter((s) => s.kind === 'stroke' || s.kind === 'hand')
  const several = plan.jobs.length > 1
  let pass = 0
  let service: ServiceId | undefined
  if (plan.lanes.length === 0 && !plan.hand) {
    return <p>This plan was made before lanes: its steps are at the Chair.</p>
  }
  return (
    <Table highlightOnHover>
      <Table.Thead>
        <Table.Tr>
          <Table.Th scope="col">In this order</Table.Th>
          <Table.Th scope="col" w={96}>
            Grain
          </Table.Th>
          <Table.Th data-num scope="col" w={62}>
            Load
          </Table.Th>
          <Table.Th data-num scope="col" w={62}>
            Seconds
          </Table.Th>
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {work.map((s, i) => {
          if (s.kind === 'hand') return <HandRow key={s.id} step={s} plan={plan} nth={i + 1} />
          const lane = s.laneId === undefined ? undefined : byId.get(s.laneId)
          if (!lane) return null
          const own = serviceIn(plan, lane.zoneId)
          const begins = several && own !== service
          if (begins) [service, pass] = [own, 0]
          const head = lane.pass > pass && plan.lanes.some((l) => l.pass > 1)
          pass = Math.max(pass, lane.pass)
          return (
            <Fragment key={s.id}>
              {begins && (
                <Table.Tr ff="heading">
                  <Table.Td colSpan={4}>{SERVICES[own].name}</Table.Td>
                </Table.Tr>
              )}
              {head && (
                <Table.Tr ff="heading" c="dimmed">
                  <Table.Td colSpan={4}>Pass {lane.pass}</Table.Td>
                </Table.Tr>
              )}
              <Table.Tr
                className={css.lane}
                data-chosen={lane.id === chosen || undefined}
                onClick={() => onShow(lane)}
              >
                <Table.Td>
                  <RowButton aria-pressed={lane.id === chosen}>
                    <span className={css.number} aria-hidden>
                      {i + 1}
                    </span>{' '}
                    {s.title}
                    {lane.edited && <small> by hand</small>}
                    {lane.grain === 'guess' && <small> a guess: felt first</small>}
                    {lane.grain === 'unsure' && <small> not surely read: feel first</small>}
                  </RowButton>
                </Table.Td>
                <Table.Td>
                  <RelationMark relation={lane.relation} />
                </Table.Td>
                <Table.Td data-num>{lane.load.toFixed(1)}</Table.Td>
                <Table.Td data-num>{Math.round(s.minutes * 60)}</Table.Td>
              </Table.Tr>
              {lane.id === chosen && children && (
                <Table.Tr>
                  <Table.Td colSpan={4} p={0}>
                    {children}
                  </Table.Td>
                </Table.Tr>
              )}
            </Fragment>
          )
        })}
        {plan.leftOut.map((z) =>
          z.skipped ? (
            <Table.Tr key={z.skipped.laneId} className={css.leftOut}>
              <Table.Td colSpan={3}>
                {z.name}, pass {z.skipped.pass}: skipped by hand
              </Table.Td>
              <Table.Td>
                {onUnskip && (
                  <Button variant="bare" size="sm" onClick={() => onUnskip(z.skipped!.laneId)}>
                    Put back
                  </Button>
                )}
              </Table.Td>
            </Table.Tr>
          ) : (
            <Table.Tr key={z.zoneId} className={css.leftOut}>
              <Table.Td>{z.name}</Table.Td>
              <Table.Td colSpan={3}>{z.reason}</Table.Td>
            </Table.Tr>
          ),
        )}
      </Table.Tbody>
    </Table>
  )
}

/** What is done by hand: recorded and timed, without strokes. */
function HandRow({ step, plan, nth }: { step: PlanStep; plan: Plan; nth: number }) {
  const work = plan.hand?.find((h) => h.jobId === step.jobId)
  return (
    <Table.Tr className={css.lane}>
      <Table.Td>
        <span className={css.number} aria-hidden>
          {nth}
        </span>{' '}
        {step.title}
      </Table.Td>
      <Table.Td>by hand</Table.Td>
      <Table.Td data-num>{work?.load.toFixed(1)}</Table.Td>
      <Table.Td data-num>{Math.round(step.minutes * 60)}</Table.Td>
    </Table.Tr>
  )
}

/** The rules of asking for one service: how grave, how long to wait, with the way back to the default. */
import { Button, Table } from '@mantine/core'
import { useFigures } from '../state/figures.ts'
import { useState } from 'react'
import { MARK_WORDS } from '../../core/house/index.ts'
import {
  ruleEffect,
  RULES,
  SEVERITY_WORDS,
  type HouseRules,
  type RuleEdit,
} from '../../core/screening/index.ts'
import {
  SEVERITY_ORDER,
  type Severity,
  SERVICE_IDS,
  SERVICES,
  type ServiceId,
} from '../../core/services/index.ts'
import type { HouseEdit } from '../../contract/routes.ts'

export function Rules({
  rules,
  onChange,
}: {
  rules: HouseRules
  onChange: (edit: HouseEdit) => void
}) {
  const figures = useFigures()
  const [service, setService] = useState<ServiceId>(SERVICE_IDS[0]!)
  return (
    <>
      <label className="school">
        <span>For which service</span>
        <select value={service} onChange={(e) => setService(e.currentTarget.value as ServiceId)}>
          {SERVICE_IDS.map((id) => (
            <option key={id} value={id}>
              {SERVICES[id].name}
            </option>
          ))}
        </select>
      </label>
      <Table>
        <Table.Thead>
          <Table.Tr>
            <Table.Th scope="col">Found</Table.Th>
            <Table.Th scope="col">Then</Table.Th>
            <Table.Th data-num scope="col">
              Days
            </Table.Th>
            <Table.Th scope="col">Mark</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {RULES.map((rule) => {
            const usual = ruleEffect(figures, rule, service)
            const now = ruleEffect(figures, rule, service, rules)
            const own = rules[rule.id]?.[service]
            const set = (edit: RuleEdit) => onChange({ rules: { [rule.id]: { [service]: edit } } })
            return (
              <Table.Tr key={rule.id}>
                <Table.Td>
                  {rule.short}
                  <small>{usual.text}</small>
                  {own && (
                    <small>
                      default: {SEVERITY_WORDS[usual.severity]}
                      {usual.waitDays !== undefined && `, ${usual.waitDays} days`}{' '}
                      <Button variant="bare" size="sm" onClick={() => set({})}>
                        back to it
                      </Button>
                    </small>
                  )}
                </Table.Td>
                <Table.Td>
                  {usual.gate ? (
                    `${usual.gate}’s word`
                  ) : (
                    <select
                      aria-label={`${rule.short}: what then`}
                      value={now.severity}
                      onChange={(e) => set({ ...own, severity: e.currentTarget.value as Severity })}
                    >
                      {SEVERITY_ORDER.map((s) => (
                        <option key={s} value={s}>
                          {SEVERITY_WORDS[s]}
                        </option>
                      ))}
                    </select>
                  )}
                </Table.Td>
                <Table.Td data-num>
                  {usual.waitDays !== undefined && (
                    <input
                      key={now.waitDays}
                      className={
                        own?.waitDays === undefined ? 'text-input short' : 'text-input short own'
                      }
                      inputMode="numeric"
                      aria-label={`${rule.short}: days to wait`}
                      defaultValue={now.waitDays}
                      onBlur={(e) => {
                        const days = Number(e.currentTarget.value)
                        if (Number.isInteger(days) && days !== now.waitDays)
                          set({ ...own, waitDays: days })
                        else e.currentTarget.value = String(now.waitDays)
                      }}
                    />
                  )}
                </Table.Td>
                <Table.Td>
                  <abbr title={MARK_WORDS[usual.mark]}>{usual.mark}</abbr>
                </Table.Td>
              </Table.Tr>
            )
          })}
        </Table.Tbody>
      </Table>
    </>
  )
}

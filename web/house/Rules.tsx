/** The rules of asking for one service: how grave, how long to wait, with the way back to the default. */
import { Button, NumberInput, Table } from '@mantine/core'
import { useFigures } from '../state/figures.ts'
import { useState } from 'react'
import {
  ruleEffect,
  RULES,
  SEVERITY_WORDS,
  type HouseRules,
  type RuleEdit,
} from '../../core/screening/index.ts'
import {
  SEVERITY_ORDER,
  SERVICE_IDS,
  SERVICES,
  type ServiceId,
  oneJob,
} from '../../core/services/index.ts'
import { Estimate } from '../ui/Estimate.tsx'
import { named, PickOne } from '../ui/PickOne.tsx'
import css from './House.module.css'
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
      <PickOne
        label="For which service"
        w={280}
        mb="sm"
        data={named(SERVICE_IDS, (id) => SERVICES[id].name)}
        value={service}
        onChange={setService}
      />
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
            const usual = ruleEffect(figures, rule, oneJob('', service))
            const now = ruleEffect(figures, rule, oneJob('', service), rules)
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
                    <PickOne
                      aria-label={`${rule.short}: what then`}
                      w={150}
                      data={named(SEVERITY_ORDER, (v) => SEVERITY_WORDS[v])}
                      value={now.severity}
                      onChange={(severity) => set({ ...own, severity })}
                    />
                  )}
                </Table.Td>
                <Table.Td data-num>
                  {usual.waitDays !== undefined && (
                    <NumberInput
                      key={now.waitDays}
                      w={84}
                      className={own?.waitDays === undefined ? '' : css.own!}
                      aria-label={`${rule.short}: days to wait`}
                      allowDecimal={false}
                      min={0}
                      max={3660}
                      defaultValue={now.waitDays ?? 0}
                      onBlur={(e) => {
                        const days = Number(e.currentTarget.value)
                        if (e.currentTarget.value !== '' && days !== now.waitDays)
                          set({ ...own, waitDays: days })
                      }}
                    />
                  )}
                </Table.Td>
                <Table.Td>
                  <Estimate mark={usual.mark} />
                </Table.Td>
              </Table.Tr>
            )
          })}
        </Table.Tbody>
      </Table>
    </>
  )
}

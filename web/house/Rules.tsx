/** The rules of asking for one service: how grave, how long to wait, with the way back to the default. */
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
      <table className="list tight">
        <thead>
          <tr>
            <th scope="col">Found</th>
            <th scope="col">Then</th>
            <th scope="col" className="num">
              Days
            </th>
            <th scope="col">Mark</th>
          </tr>
        </thead>
        <tbody>
          {RULES.map((rule) => {
            const usual = ruleEffect(figures, rule, service)
            const now = ruleEffect(figures, rule, service, rules)
            const own = rules[rule.id]?.[service]
            const set = (edit: RuleEdit) => onChange({ rules: { [rule.id]: { [service]: edit } } })
            return (
              <tr key={rule.id}>
                <td>
                  {rule.short}
                  <small>{usual.text}</small>
                  {own && (
                    <small>
                      default: {SEVERITY_WORDS[usual.severity]}
                      {usual.waitDays !== undefined && `, ${usual.waitDays} days`}{' '}
                      <button className="link" onClick={() => set({})}>
                        back to it
                      </button>
                    </small>
                  )}
                </td>
                <td>
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
                </td>
                <td className="num">
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
                </td>
                <td>
                  <abbr title={MARK_WORDS[usual.mark]}>{usual.mark}</abbr>
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </>
  )
}

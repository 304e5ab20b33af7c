import type { Express } from 'express'
import { mount } from '../http/mount.ts'
import type { Caretaker } from './caretaker.ts'

export function safetyRoutes(app: Express, caretaker: Caretaker): void {
  const state = () => Promise.resolve(caretaker.state(Date.now()))
  mount(app, 'safety', state)
  mount(app, 'changeSafety', ({ body }) => {
    caretaker.change(body)
    return state()
  })
  mount(app, 'backUp', () => {
    caretaker.refuseBusy()
    // It tells how it ended by itself: whoever asked need not wait.
    void caretaker.backup('asked')
    return state()
  })
  mount(app, 'prove', () => {
    caretaker.refuseBusy()
    void caretaker.prove()
    return state()
  })
  mount(app, 'stopSafety', () => {
    caretaker.stop()
    return state()
  })
}

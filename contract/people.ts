/** Who signs in, over the wire. */
import * as y from 'yup'
import { LEVELS } from '../core/kit/index.ts'
import { HANDS } from '../core/plan/index.ts'
import { choice, text, uuid } from './parts.ts'
import { RANKS } from './rights.ts'

/** Four figures at the least; letters make a passphrase of eight and more. */
const secret = () =>
  y
    .string()
    .max(200, 'at most 200 characters')
    .test(
      'secret',
      'Four to twelve figures, or a passphrase of 8 characters and more.',
      (s) =>
        s === undefined ||
        s === null ||
        /^\d{4,12}$/.test(s) ||
        (s.length >= 8 && !/^\d*$/.test(s)),
    )

/** What is typed at the door: whatever it is, it is only compared. */
export const signInSchema = y
  .object({
    workerId: uuid().required(),
    secret: y.string().max(200).required('Your figures are missing.'),
  })
  .noUnknown()

export const ownerSchema = y
  .object({
    house: text(60).required('What is the house called?'),
    name: text(60).required('Who are you?'),
    role: text(60).default('barber'),
    hand: choice(HANDS).default('right'),
    /** Left out: nobody signs in, at this machine alone. */
    secret: secret().optional(),
  })
  .noUnknown()

export const newWorkerSchema = y
  .object({
    id: uuid().required(),
    name: text(60).required('A worker needs a name.'),
    role: text(60).required('What do they do?'),
    hand: choice(HANDS).required(),
    level: choice(LEVELS).default('practised'),
    rank: choice(RANKS).required(),
    secret: secret().optional(),
  })
  .noUnknown()

export const workerChangeSchema = y
  .object({
    rank: choice(RANKS).optional(),
    secret: secret().nullable().optional(),
    gone: y.boolean().optional(),
    /** Ends every session of theirs. */
    signOut: y.boolean().isTrue().optional(),
  })
  .noUnknown()

export const secretChangeSchema = y
  .object({
    before: y.string().max(200).default(''),
    secret: secret().required('Type the new ones.'),
  })
  .noUnknown()

export const SCREEN_KINDS = ['tablet', 'wall'] as const
export const newPairingSchema = y
  .object({ name: text(60).required('What is it called?'), kind: choice(SCREEN_KINDS).required() })
  .noUnknown()
export const pairSchema = y.object({ code: text(20).required('Type the code.') }).noUnknown()
export const screenChangeSchema = y
  .object({ takenBack: y.boolean().isTrue().required() })
  .noUnknown()

export const trailQuery = y
  .object({
    client: uuid().optional(),
    worker: uuid().optional(),
    before: y.number().integer().min(0).optional(),
  })
  .noUnknown()

/** Ties a schema of the wire to the type that core works with: where one of them moves, the other no longer compiles. */
import type { InferType, Schema } from 'yup'

/** A value as it is sent: without readonly, each field with whether it may be left out, so that none can be missing unseen. */
type Sent<T> = T extends string | number | boolean | null | undefined
  ? T
  : T extends readonly [infer A, infer B, infer C]
    ? [Sent<A>, Sent<B>, Sent<C>]
    : T extends readonly (infer U)[]
      ? Sent<U>[]
      : T extends object
        ? {
            [K in keyof T]-?: [
              undefined extends T[K] ? 'may be left out' : 'must be there',
              Sent<Exclude<T[K], undefined>>,
            ]
          }
        : T

type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : { missing: A }) : { differs: B }

type Fits<S extends Schema, Core> = Same<Sent<NonNullable<InferType<S>>>, Sent<Core>>

/** `bound<Core>()(schema)`: the schema as it is, when it lets through exactly what core calls a `Core`. */
export const bound =
  <Core>() =>
  <S extends Schema>(schema: S & (Fits<S, Core> extends true ? unknown : Fits<S, Core>)): S =>
    schema

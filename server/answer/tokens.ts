/** Tokens of pages that are opened by their address alone: 256 random bits, of which only a digest is kept. */
import { createHash, randomBytes } from 'node:crypto'
import type { Response } from 'express'
import type { Config } from '../config.ts'
import { ownAddress } from '../http/door.ts'

const TOKEN = /^[A-Za-z0-9_-]{43}$/

export const newToken = (): string => randomBytes(32).toString('base64url')
export const isToken = (text: string): boolean => TOKEN.test(text)
export const digestOf = (token: string): string => createHash('sha256').update(token).digest('hex')

/** Under which address clients find such pages: the house's public one, else that by which it is reached here. */
export const baseOf = (config: Pick<Config, 'publicUrl' | 'lan'>, response: Response): string =>
  config.publicUrl ?? config.lan?.()?.url ?? ownAddress('http', undefined, response.req.socket)

/** The log: what was asked for by its route, how it ended, how long it took. Never who, never what: no name, no token, no text. */
import type { IncomingMessage, ServerResponse } from 'node:http'
import type { Request } from 'express'
import { pinoHttp } from 'pino-http'
import type { Logger } from 'pino'

/** An address with everything that could tell of a person taken out of it. */
export const plainPath = (url: string): string =>
  url
    .split(/[?#]/)[0]!
    .split('/')
    .map((part) => (/^[a-z-]{1,24}(\.[a-z0-9]{2,5})?$/.test(part) || part === '' ? part : ':…'))
    .join('/')

/** An error by its kind and place: drivers write what was to be stored into their messages. */
export function plainError(error: unknown): object {
  if (!(error instanceof Error)) return { type: typeof error }
  const frames = (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line))
  const { code } = error as { code?: unknown }
  return {
    type: error.name,
    ...(typeof code === 'string' && { code }),
    ...(error.cause !== undefined && { cause: plainError(error.cause) }),
    at: frames.slice(0, 8).map((line) => line.trim()),
  }
}

export const httpLog = (logger: Logger) =>
  pinoHttp({
    logger,
    quietReqLogger: true,
    autoLogging: logger.isLevelEnabled('info'),
    serializers: {
      req: (req: IncomingMessage) => ({
        method: req.method,
        path: plainPath((req as Request).originalUrl ?? req.url ?? ''),
      }),
      res: (res: ServerResponse) => ({ status: res.statusCode }),
      err: plainError,
    },
    wrapSerializers: false,
  })

/** Requests of the kind that no screen of ours sends, for every route: none may be answered with a fault of the server. */
import { randomUUID } from 'node:crypto'
import { ROUTES, type RouteName } from '../../contract/routes.ts'

export interface HostileRequest {
  readonly method: string
  readonly path: string
  readonly headers: Readonly<Record<string, string>>
  readonly body?: string | Buffer
}

/** Streams never end; what writes files on its own accord is asked for elsewhere. */
const LEFT_OUT: readonly RouteName[] = ['follow', 'followAll', 'backUp', 'prove', 'changeSafety']

const deep = (n: number, open: string, close: string) => open.repeat(n) + close.repeat(n)

/** Values where others are expected, as JSON. */
const VALUES = [
  'null',
  'true',
  '[]',
  '{}',
  '[[[]]]',
  '["a","b"]',
  '{"a":1}',
  '{"length":9999999}',
  '0',
  '-1',
  '1e308',
  '8640000000000000',
  '9007199254740993',
  '""',
  '" "',
  '"\\u0000"',
  '"a\\u0000b"',
  '"\\ud800"',
  '"9999-12-31"',
  '"2026-02-31"',
  '"0000-00-00"',
  '"__proto__"',
  '"constructor"',
  '"../../etc/passwd"',
  `"${'x'.repeat(5000)}"`,
  '"1; DROP TABLE clients"',
  '"<script>alert(1)</script>"',
  '{"__proto__":{"admin":true}}',
  '{"constructor":{"prototype":{}}}',
  '{"toString":1}',
  '{"$where":"1"}',
]
const IDS = [
  'x',
  '..%2f..%2fetc%2fpasswd',
  '%00',
  '%',
  '%ff',
  '%2e%2e',
  '%252e',
  'a'.repeat(3000),
  '%F0%9F%8C%8A',
  '%5Bobject%20Object%5D',
  '__proto__',
  'null',
  '-1',
  '%27',
]
const QUERIES = [
  'find=a&find=b',
  'find[]=a',
  'find[a]=1',
  'find=%00',
  'find=%ff',
  `find=${'y'.repeat(4000)}`,
  'find=%25_',
  'sort=__proto__',
  'sort=due&sort=name',
  'after=NaN',
  'after=1e99',
  'back=-5',
  'back=99999999999999999999',
  'through=9999-12-31',
  'through=2026-13-45',
  'size=..%2f..%2fx',
  'size[]=whole',
  '__proto__[a]=1',
  'a'.repeat(2000),
]
const TYPES = [
  'application/json',
  'application/json; charset=utf-7',
  'application/json; charset=cp1252',
  'application/json; charset=utf-16',
  'application/JSON;CHARSET="UTF-8"',
  'text/plain',
  'application/x-www-form-urlencoded',
  'multipart/form-data',
  'multipart/form-data; boundary=x',
  'application/json, text/html',
  '',
]
const BODIES = [
  deep(5000, '[', ']'),
  deep(5000, '{"a":', '').slice(0, -5) + '1' + '}'.repeat(4999),
  '{',
  '"text"',
  '123',
  'null',
  '{"id":"x","id":"y"}',
  '\ufeff{}',
  '{"a":1}garbage',
  'a=1&a=2&__proto__=3',
  '--x\r\nContent-Disposition: form-data; name="photo"; filename="x.jpg"\r\n\r\nnot a picture\r\n--x--',
  '--x\r\nContent-Disposition: form-data; name="__proto__"\r\n\r\n1\r\n--x--',
  '--x\r\nContent-Disposition: form-data; name="id"\r\n\r\n1',
]

const FORM = [
  'redness=1&redness=2',
  '__proto__=1',
  'constructor=1&prototype=2',
  'redness[a]=1',
  `words=${'w'.repeat(11_000)}`,
  'redness=1&bumps=0&stinging=0&itch=0&dryness=0&hair=no&since=99999999999',
  'redness=%00',
  '%ff=%ff',
  'areas=a&areas=b&areas=__proto__',
  'a=1&'.repeat(100),
]

/**
 * A stream of hostile requests.
 * @param random draws from 0 to 1
 * @param known ids that are there, so that what is behind them is reached
 * @param seeds bodies that are right, by route: spoilt one field at a time
 */
export function* hostileRequests(
  random: () => number,
  known: { readonly client: string; readonly visit: string; readonly token: string },
  seeds: Partial<Record<RouteName, object>>,
): Generator<HostileRequest> {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const names = (Object.keys(ROUTES) as RouteName[]).filter((n) => !LEFT_OUT.includes(n))
  const json = 'application/json'
  for (;;) {
    if (random() < 0.05) {
      const token = random() < 0.5 ? known.token : pick(IDS)
      yield {
        ...{ method: pick(['GET', 'POST', 'PUT']), path: `/answer/${token}` },
        headers: { 'Content-Type': pick(['application/x-www-form-urlencoded', ...TYPES]) },
        body: pick(FORM),
      }
      continue
    }
    if (random() < 0.03) {
      yield {
        method: 'GET',
        path: pick([
          '/..%2f..%2fpackage.json',
          '/%00',
          '/assets/..%2f..%2fx',
          '/%',
          '/api/%',
          '/api',
          '//',
          '/api/clients/%2e%2e/',
        ]),
        headers: {},
      }
      continue
    }
    const name = pick(names)
    const { method, path } = ROUTES[name]
    const own = path.startsWith('/api/clients') ? known.client : known.visit
    const filled = path.replace(/:(\w+)/g, (_, key: string) =>
      random() < 0.35
        ? pick(IDS)
        : key === 'moment'
          ? pick(['24h', 'h9999', 'now', '__proto__'])
          : random() < 0.1
            ? randomUUID()
            : own,
    )
    const query = random() < 0.3 ? `?${pick(QUERIES)}` : ''
    const odd = random()
    if (method === 'GET' || odd < 0.1) {
      yield {
        method: odd < 0.04 ? pick(['PATCH', 'DELETE', 'OPTIONS', 'HEAD', 'POST']) : method,
        path: filled + query,
        headers:
          odd < 0.08
            ? { 'If-None-Match': '*', Range: 'bytes=9-1', 'If-Modified-Since': 'never' }
            : {},
      }
      continue
    }
    const right = seeds[name]
    const body =
      right && odd < 0.8
        ? spoilt(JSON.stringify(right), pick(VALUES), random)
        : odd < 0.9
          ? pick(BODIES)
          : `{"${pick(['id', 'name', 'asked', 'zones', 'x'])}":${pick(VALUES)}}`
    // Never erased by luck: the name that must be typed is not in any of these.
    yield {
      method,
      path: filled + query,
      headers: { 'Content-Type': random() < 0.85 ? json : pick(TYPES) },
      body,
    }
  }
}

/** One value of a JSON text replaced by another. */
function spoilt(text: string, value: string, random: () => number): string {
  const spots = [
    ...text.matchAll(/(?<=[:[,])(-?\d+(\.\d+)?|"(?:[^"\\]|\\.)*"(?!:)|true|false|null|\[\]|\{\})/g),
  ]
  if (spots.length === 0) return value
  const spot = spots[Math.floor(random() * spots.length)]!
  return text.slice(0, spot.index) + value + text.slice(spot.index + spot[0].length)
}

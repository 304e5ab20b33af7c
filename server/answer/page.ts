/** The link page as plain HTML: it needs no script, works on any phone, and shows nothing but its six questions. */
import escape from 'escape-html'
import { AREAS, areasWorked } from '../../core/history/clientAnswer.ts'
import { DRYNESS_WORDS } from '../../core/history/answers.ts'
import { SERVICES, type ServiceId } from '../../core/services.ts'
import { REDNESS_COLOURS, REDNESS_WORDS } from '../../core/skin/anchors.ts'

const STYLE = `
@font-face{font-family:Hyper;src:url(/answer-face.woff2) format('woff2');font-weight:200 800}
:root{color-scheme:light dark;--paper:#F5F0E6;--shell:#FBF8F2;--ink:#17323B;--soft:#45585f;--line:#8a948f;--deep:#0D4656;--on:#FBF8F2;--coral:#9c3a25}
@media (prefers-color-scheme:dark){:root{--paper:#10191D;--shell:#1B282E;--ink:#E9E3D6;--soft:#b9bfb8;--line:#6d7b80;--deep:#8fc7c9;--on:#10191D;--coral:#f0a592}}
*{box-sizing:border-box}
body{margin:0;background:var(--paper);color:var(--ink);font:18px/1.45 Hyper,system-ui,sans-serif}
main{max-width:34rem;margin:0 auto;padding:20px 18px 48px}
h1{font-size:1.6rem;line-height:1.2;margin:.2rem 0 .6rem}
fieldset{border:0;border-top:1px solid var(--line);margin:0;padding:18px 0 20px;min-width:0}
legend{font-weight:700;font-size:1.12rem;padding:0 .5em 0 0}
.hint,small{color:var(--soft);font-size:.92rem;margin:.1rem 0 .6rem;display:block}
.grades{display:grid;grid-template-columns:repeat(5,1fr);gap:6px}
.rows{display:grid;gap:8px}
.scale{display:grid;grid-template-columns:repeat(11,1fr);gap:3px}
label.tap{position:relative;display:block}
label.tap input{position:absolute;opacity:0;inset:0;width:100%;height:100%;margin:0;cursor:pointer}
label.tap span{display:flex;align-items:center;justify-content:center;min-height:48px;padding:6px;border:1px solid var(--line);border-radius:4px;background:var(--shell);text-align:center}
.rows label.tap span{justify-content:flex-start;padding-left:14px}
.grades label.tap span{color:#17323B;font-weight:700;font-size:1.2rem;min-height:56px}
.grades label.tap.strong span{color:#FBF8F2}
label.tap input:checked+span{outline:3px solid var(--deep);outline-offset:1px;font-weight:700}
label.tap input:focus-visible+span{outline:3px dashed var(--deep);outline-offset:3px}
ol.words{padding:0;margin:10px 0 0;list-style:none;font-size:.92rem;color:var(--soft)}
input[type=number],textarea{font:inherit;color:inherit;background:var(--shell);border:1px solid var(--line);border-radius:4px;padding:10px 12px;width:100%}
input[type=number]{max-width:8rem}
button{font:inherit;font-weight:700;width:100%;min-height:56px;border:0;border-radius:4px;background:var(--deep);color:var(--on)}
.care{border-left:4px solid var(--coral);padding:4px 0 4px 14px;margin:20px 0}
`

function frame(title: string, body: string): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="robots" content="noindex"><title>${escape(title)}</title><style>${STYLE}</style></head><body><main>${body}</main></body></html>`
}

const tap = (
  type: 'radio' | 'checkbox',
  name: string,
  value: string | number,
  text: string,
  more = '',
  style = '',
  kind = '',
) =>
  `<label class="tap${kind}"><input type="${type}" name="${name}" value="${escape(String(value))}"${more}><span${style}>${escape(text)}</span></label>`

const scale = (name: string) =>
  `<div class="scale">${Array.from({ length: 11 }, (_, i) => tap('radio', name, i, String(i), ` required aria-label="${i} of 10"`)).join('')}</div>`

export interface Questions {
  readonly house: string
  /** How the client likes to be called; nothing else of them is shown. */
  readonly name: string
  readonly service: ServiceId
  readonly worked: readonly string[]
  /** "the day after", "after a week". */
  readonly when: string
  /** What could not be taken of the last try, and what was given: it is filled in again. */
  readonly problem?: string
  readonly given?: Readonly<Record<string, unknown>>
}

/** Puts what was given back into a form that could not be taken. */
function fillAgain(html: string, given: Questions['given']): string {
  if (!given) return html
  const list = (name: string) => [given[name]].flat().filter((v) => typeof v === 'string')
  return html
    .replace(
      /<input type="(radio|checkbox)" name="(\w+)" value="([^"]*)"/g,
      (tag: string, _type, name: string, value: string) =>
        list(name).some((v) => escape(v) === value) ? `${tag} checked` : tag,
    )
    .replace(
      /(<input type="number" name="(\w+)"[^>]*?value=")[^"]*"/g,
      (tag: string, head: string, name: string) => {
        const [value] = list(name)
        return value === undefined ? tag : `${head}${escape(value)}"`
      },
    )
    .replace(
      /(<textarea name="(\w+)"[^>]*>)/g,
      (tag: string, _head, name: string) => `${tag}${escape(list(name)[0] ?? '')}`,
    )
}

export function questionsPage(q: Questions): string {
  const grades = REDNESS_WORDS.map(([word], grade) =>
    tap(
      'radio',
      'redness',
      grade,
      String(grade),
      ` required aria-label="${grade}, ${escape(word)}"`,
      ` style="background:${REDNESS_COLOURS[grade]}"`,
      grade >= 4 ? ' strong' : '',
    ),
  ).join('')
  const words = REDNESS_WORDS.map(
    ([word, look], i) => `<li><b>${i}</b> ${escape(word)}: ${escape(look)}</li>`,
  ).join('')
  const areas = areasWorked(q.worked)
    .map((a) => tap('checkbox', 'areas', a, AREAS[a].name))
    .join('')
  return frame(
    `How is your skin? ${q.house}`,
    `<p class="hint">${escape(q.house)}</p>
<h1>${q.name ? `Hello ${escape(q.name)}, how` : 'How'} is your skin?</h1>
<p>Six questions about your skin now, ${escape(q.when)} your ${escape(SERVICES[q.service].name.toLowerCase())}. Your answers go to the studio and nowhere else.</p>
${q.problem ? `<p role="alert" class="care">${escape(q.problem)}</p>` : ''}
${fillAgain(
  `<form method="post" autocomplete="off">
<fieldset><legend>1. How red is the worst place?</legend><span class="hint">Compare with the skin beside it.</span><div class="grades">${grades}</div><ol class="words">${words}</ol></fieldset>
<fieldset><legend>2. Where?</legend><span class="hint">Tap every place that is red or has bumps. None means the same everywhere.</span><div class="rows">${areas}</div></fieldset>
<fieldset><legend>3. How many bumps or ingrown hairs can you count?</legend><input type="number" name="bumps" inputmode="numeric" min="0" max="200" value="0" required aria-label="Bumps or ingrown hairs"><div class="rows" style="margin-top:10px">${tap('checkbox', 'pus', 'true', 'Some hold pus')}</div></fieldset>
<fieldset><legend>4. How much does it sting?</legend><span class="hint">0 not at all, 10 as bad as can be.</span>${scale('stinging')}</fieldset>
<fieldset><legend>5. How dry is it, and how much does it itch?</legend><div class="rows">${DRYNESS_WORDS.map((w, i) => tap('radio', 'dryness', i, i === 0 ? 'Not dry' : w, ' required')).join('')}</div><span class="hint" style="margin-top:12px">Itch, 0 not at all, 10 as bad as can be.</span>${scale('itch')}</fieldset>
<fieldset><legend>6. Is hair back?</legend><div class="rows">${tap('radio', 'hair', 'no', 'Neither felt nor seen', ' required')}${tap('radio', 'hair', 'felt', 'I can feel it', ' required')}${tap('radio', 'hair', 'seen', 'I can see it', ' required')}</div><span class="hint" style="margin-top:12px">If so, first noticed how many days ago? 0 is today.</span><input type="number" name="since" inputmode="numeric" min="0" max="15" value="0" aria-label="Days since hair was noticed"></fieldset>
<fieldset><legend>Anything else?</legend><span class="hint">If you like.</span><textarea name="words" rows="3" maxlength="500" aria-label="Anything else"></textarea></fieldset>
<button type="submit">Send to ${escape(q.house)}</button>
</form>`,
  q.given,
)}
${CARE}`,
  )
}

const CARE =
  '<p class="care">Spreading redness, heat, pus or fever: do not wait for an answer, see a doctor.</p>'

export const thanksPage = (house: string, again: boolean): string =>
  frame(
    `Thank you. ${house}`,
    `<p class="hint">${escape(house)}</p><h1>Thank you.</h1><p>${
      again
        ? 'Your answer for these days is here already; it was not changed. If your skin has got worse, ring the studio.'
        : 'Your answer is with the studio. The same link asks again on day 2 and day 7.'
    }</p>${CARE}`,
  )

export const closedPage = (): string =>
  frame(
    'This page is closed',
    '<h1>This page is closed</h1><p>The link is over, was taken back, or is not complete. Ask the studio for a new one.</p>',
  )

export const tooMuchPage = (): string =>
  frame(
    'Too much',
    '<h1>That was too much at once</h1><p>Nothing was changed. Go back and try again in a minute.</p>',
  )

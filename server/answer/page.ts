/** The link page as plain HTML: it needs no script, works on any phone, and shows nothing but its six questions. */
import { LAMP, LIGHT, onRedness, REDNESS_COLOURS } from '../../core/palette.ts'
import { type AreaId, AREAS, areasWorked, DRYNESS_WORDS } from '../../core/looks/index.ts'
import { HOME_TOOL_WORDS, HOME_TOOLS, type HomeTool } from '../../core/history/index.ts'
import { capital, lowerFirst } from '../../core/words.ts'
import { REDNESS_WORDS } from '../../core/skin/index.ts'
import escape from 'escape-html'
import { NONCE } from '../http/headers.ts'

const variables = (colours: Readonly<Record<string, string>>) =>
  Object.entries(colours)
    .map(([name, colour]) => `--${name}:${colour}`)
    .join(';')

const STYLE = `
@font-face{font-family:Hyper;src:url(/answer-face.woff2) format('woff2');font-weight:200 800}
:root{color-scheme:light dark;${variables(LIGHT)}}
@media (prefers-color-scheme:dark){:root{${variables(LAMP)}}}
*{box-sizing:border-box}
body{margin:0;background:var(--paper);color:var(--ink);font:18px/1.45 Hyper,system-ui,sans-serif}
main{max-width:34rem;margin:0 auto;padding:20px 18px 48px}
h1{font-size:1.6rem;line-height:1.2;margin:.2rem 0 .6rem}
fieldset{border:0;border-top:1px solid var(--edge);margin:0;padding:18px 0 20px;min-width:0}
legend{font-weight:700;font-size:1.12rem;padding:0 .5em 0 0}
.rows+.hint{margin-top:14px}input+.rows{margin-top:10px}
.hint,small{color:var(--soft);font-size:.92rem;margin:.1rem 0 .6rem;display:block}
.grades{display:grid;grid-template-columns:repeat(5,1fr);gap:6px}
.rows{display:grid;gap:8px}
.scale{display:grid;grid-template-columns:repeat(11,1fr);gap:3px}
label.tap{position:relative;display:block}
label.tap input{position:absolute;opacity:0;inset:0;width:100%;height:100%;margin:0;cursor:pointer}
label.tap span{display:flex;align-items:center;justify-content:center;min-height:48px;padding:6px;border:1px solid var(--edge);border-radius:4px;background:var(--shell);text-align:center}
.rows label.tap span{justify-content:flex-start;padding-left:14px}
.grades label.tap span{color:${onRedness(0)};font-weight:700;font-size:1.2rem;min-height:56px}
${REDNESS_COLOURS.map((colour, grade) => `.grades label.grade-${grade} span{background:${colour};color:${onRedness(grade)}}`).join('\n')}
label.tap input:checked+span{outline:3px solid var(--deep);outline-offset:1px;font-weight:700}
label.tap input:focus-visible+span{outline:3px dashed var(--deep);outline-offset:3px}
ol.words{padding:0;margin:10px 0 0;list-style:none;font-size:.92rem;color:var(--soft)}
input[type=number],input[type=date],textarea{font:inherit;color:inherit;background:var(--shell);border:1px solid var(--edge);border-radius:4px;padding:10px 12px;width:100%}
input[type=number]{max-width:8rem}
button{font:inherit;font-weight:700;width:100%;min-height:56px;border:0;border-radius:4px;background:var(--deep);color:var(--onDeep)}
h2{font-size:1.2rem;margin:1.4rem 0 .4rem}ul.now{padding-left:1.1em}ul.now li{margin:.5em 0}
.care{border-left:4px solid var(--coral);padding:4px 0 4px 14px;margin:20px 0}
.care.good{border-color:var(--kelp)}
.hour{font-size:1.15rem;border-left:4px solid var(--tide);padding:2px 0 2px 14px;margin:16px 0}
button.plain{background:var(--shell);color:var(--ink);border:1px solid var(--edge)}
form+form{margin-top:10px}main a{color:inherit}
`

/** @param body HTML, escaped where it is not ours */
export function frame(title: string, body: string): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="robots" content="noindex"><title>${escape(title)}</title><style nonce="${NONCE}">${STYLE}</style></head><body><main>${body}</main></body></html>`
}

/** The fields of the form, with what was given before in them. */
class Fields {
  private readonly given: Readonly<Record<string, unknown>>

  constructor(given: Readonly<Record<string, unknown>> = {}) {
    this.given = given
  }

  /** What was given for a field; more than one for boxes that are ticked. */
  private of(name: string): string[] {
    return [this.given[name]].flat().filter((v) => typeof v === 'string')
  }

  tap(
    type: 'radio' | 'checkbox',
    name: string,
    value: string | number,
    text: string,
    more: { readonly label?: string; readonly grade?: number } = {},
  ): string {
    const marks = [
      type === 'radio' ? ' required' : '',
      this.of(name).includes(String(value)) ? ' checked' : '',
      more.label === undefined ? '' : ` aria-label="${escape(more.label)}"`,
    ].join('')
    return `<label class="tap${more.grade === undefined ? '' : ` grade-${more.grade}`}"><input type="${type}" name="${name}" value="${escape(String(value))}"${marks}><span>${escape(text)}</span></label>`
  }

  scale(name: string): string {
    const steps = Array.from({ length: 11 }, (_, i) =>
      this.tap('radio', name, i, String(i), { label: `${i} of 10` }),
    )
    return `<div class="scale">${steps.join('')}</div>`
  }

  number(name: string, most: number, label: string): string {
    const value = this.of(name)[0] ?? '0'
    return `<input type="number" name="${name}" inputmode="numeric" min="0" max="${most}" value="${escape(value)}" required aria-label="${escape(label)}">`
  }

  text(name: string, most: number, label: string): string {
    return `<textarea name="${name}" rows="3" maxlength="${most}" aria-label="${escape(label)}">${escape(this.of(name)[0] ?? '')}</textarea>`
  }
}

export interface Questions {
  readonly house: string
  /** How the client likes to be called; nothing else of them is shown. */
  readonly name: string
  /** What was done: "Hot-towel face shave". */
  readonly what: string
  readonly worked: readonly string[]
  /** "the day after", "after a week". */
  readonly when: string
  /** What could not be taken of the last try, and what was given: it is filled in again. */
  readonly problem?: string
  readonly given?: Readonly<Record<string, unknown>>
  /** Where the form for work at home is sent. */
  readonly home: HomeForm
  /** The next hour in the book with what may be done, as HTML; empty where there is none. */
  readonly hour: string
}

/** What the form for work at home begins with. */
export interface HomeForm {
  readonly action: string
  readonly today: string
  readonly worked: readonly string[]
  /** What was told last: it can be told again in one tap. */
  readonly last?: {
    readonly areas: readonly AreaId[]
    readonly tool: HomeTool
    readonly words: string
  }
  readonly problem?: string
}

/** "I took hair off at home": which day, where, with what; the same again in one tap. */
function homeForm({ action, today, worked, last, problem }: HomeForm): string {
  const f = new Fields({ tool: last?.tool ?? 'cartridge', areas: last?.areas ?? [] })
  const areas = areasWorked(worked).map((a) => f.tap('checkbox', 'areas', a, AREAS[a].name))
  const tools = HOME_TOOLS.map((t) => f.tap('radio', 'tool', t, capital(HOME_TOOL_WORDS[t])))
  const hidden = (name: string, value: string) =>
    `<input type="hidden" name="${name}" value="${escape(value)}">`
  const again = last
    ? `<form method="post" action="${escape(action)}">${hidden('date', today)}${hidden('tool', last.tool)}${last.areas.map((a) => hidden('areas', a)).join('')}<button type="submit">The same again today: ${escape(last.words)}</button></form>`
    : ''
  return `<h2>Have you taken hair off at home?</h2>
<p class="hint">Tell us, so that the next visit is planned on what is there.</p>
${problem ? `<p role="alert" class="care">${escape(problem)}</p>` : ''}${again}
<form method="post" action="${escape(action)}" autocomplete="off">
<fieldset><legend>When</legend><input type="date" name="date" value="${today}" max="${today}" required aria-label="Day"></fieldset>
<fieldset><legend>Where</legend><div class="rows">${areas.join('')}</div></fieldset>
<fieldset><legend>With</legend><div class="rows">${tools.join('')}${f.tap('checkbox', 'fresh', 'true', 'A fresh blade')}${f.tap('checkbox', 'dull', 'true', 'It tugged, or is rusty')}</div></fieldset>
<button type="submit">Tell the studio</button>
</form>`
}

/** Said after work at home was told. */
export const homeThanksPage = (house: string): string =>
  frame(
    `Noted. ${house}`,
    `<p class="hint">${escape(house)}</p><h1>Noted, thank you.</h1><p>Next time: warm water, gel without gaps, with the growth only, no pressure, each place once. Ask us for your home card: it shows which way.</p>${CARE}`,
  )

export function questionsPage(q: Questions): string {
  const f = new Fields(q.given)
  const grades = REDNESS_WORDS.map(([word], grade) =>
    f.tap('radio', 'redness', grade, String(grade), {
      label: `${grade}, ${word}`,
      grade,
    }),
  )
  const looks = REDNESS_WORDS.map(
    ([word, look], i) => `<li><b>${i}</b> ${escape(word)}: ${escape(look)}</li>`,
  )
  const areas = areasWorked(q.worked).map((a) => f.tap('checkbox', 'areas', a, AREAS[a].name))
  const dryness = DRYNESS_WORDS.map((w, i) => f.tap('radio', 'dryness', i, i === 0 ? 'Not dry' : w))
  const hair = (
    [
      ['no', 'Neither felt nor seen'],
      ['felt', 'I can feel it'],
      ['seen', 'I can see it'],
    ] as const
  ).map(([id, words]) => f.tap('radio', 'hair', id, words))
  const question = (title: string, hint: string, ...parts: string[]) =>
    `<fieldset><legend>${title}</legend>${hint && `<span class="hint">${hint}</span>`}${parts.join('')}</fieldset>`
  const rows = (list: readonly string[]) => `<div class="rows">${list.join('')}</div>`
  return frame(
    `How is your skin? ${q.house}`,
    `<p class="hint">${escape(q.house)}</p>
<h1>${q.name ? `Hello ${escape(q.name)}, how` : 'How'} is your skin?</h1>
<p>Six questions about your skin now, ${escape(q.when)} your ${escape(lowerFirst(q.what))}. Your answers go to the studio and nowhere else.</p>
${q.problem ? `<p role="alert" class="care">${escape(q.problem)}</p>` : ''}
<form method="post" autocomplete="off">
${question('1. How red is the worst place?', 'Compare with the skin beside it.', `<div class="grades">${grades.join('')}</div>`, `<ol class="words">${looks.join('')}</ol>`)}
${question('2. Where?', 'Tap every place that is red or has bumps. None means the same everywhere.', rows(areas))}
${question('3. How many bumps or ingrown hairs can you count?', '', f.number('bumps', 200, 'Bumps or ingrown hairs'), rows([f.tap('checkbox', 'pus', 'true', 'Some hold pus'), f.tap('checkbox', 'spreading', 'true', 'It is spreading or hot, or I feel ill')]))}
${question('4. How much does it sting?', '0 not at all, 10 as bad as can be.', f.scale('stinging'))}
${question('5. How dry is it, and how much does it itch?', '', rows(dryness), '<span class="hint">Itch, 0 not at all, 10 as bad as can be.</span>', f.scale('itch'))}
${question('6. Is hair back?', '', rows(hair), '<span class="hint">If so, first noticed how many days ago? 0 is today.</span>', f.number('since', 15, 'Days since hair was noticed'))}
${question('Anything else?', 'If you like.', f.text('words', 500, 'Anything else'))}
<button type="submit">Send to ${escape(q.house)}</button>
</form>
${nextHour(q.hour)}${homeForm(q.home)}
${CARE}`,
  )
}

const nextHour = (hour: string) => hour && `<h2>Your next hour</h2>${hour}`

const CARE =
  '<p class="care">Spreading redness, heat, pus or fever: do not wait for an answer, see a doctor.</p>'

/** What is told to somebody whose answer is severe: in general words, and no more than a studio may say. */
const WHAT_NOW = `<h2>What to do now</h2>
<ul class="now">
<li><b>Stop:</b> no shaving, no scrubbing, no picking, no tight collar or strap on it.</li>
<li><b>Cool:</b> a clean cloth, wrung out in cool water, for some minutes at a time.</li>
<li><b>Nothing on it:</b> no balm, acid, make-up or scent until it is calm.</li>
<li><b>A pharmacist or doctor</b> when it spreads, blisters, holds pus, is very hot or painful, comes with fever, or has not calmed by tomorrow. They know more than a studio does.</li>
</ul>
<p>Your answer stands first on the studio’s list. If nobody has rung you by tomorrow, ring the studio.</p>`

export interface Thanks {
  readonly house: string
  /** An answer for these days was here already. */
  readonly again: boolean
  /** The answer that stands is severe. */
  readonly severe: boolean
  /** When the same link asks again, in words; none when nothing is asked any more. */
  readonly ahead: readonly string[]
  readonly home: HomeForm
  readonly hour: string
}

export function thanksPage({ house, again, severe, ahead, home, hour }: Thanks): string {
  const next =
    ahead.length > 0
      ? `The same link asks again ${ahead.join(' and ')}.`
      : 'This was the last time that the link asks.'
  const said = again
    ? `Your answer for these days is here already; it was not changed. If your skin has got worse, ring the studio. ${next}`
    : `Your answer is with the studio. ${next}`
  return frame(
    `Thank you. ${house}`,
    `<p class="hint">${escape(house)}</p><h1>Thank you.</h1><p>${said}</p>${severe ? WHAT_NOW : ''}${nextHour(hour)}${homeForm(home)}${CARE}`,
  )
}

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

/** Every key of the house, once: what is pressed, what it does, where it holds. The keys, their signs and the help come from here. */

export const PLACES = [
  ['everywhere', 'Everywhere'],
  ['lists', 'Today and Clients'],
  ['week', 'Week'],
  ['head', 'At the head'],
  ['read', 'Read'],
  ['test', 'Read: the guided test'],
  ['lines', 'Read: lines'],
  ['plan', 'Plan'],
  ['return', 'Return'],
  ['ready', 'Chair, before it begins'],
  ['chair', 'Chair'],
] as const
export type Place = (typeof PLACES)[number][0]

export interface Shortcut {
  readonly where: Place
  /** As they are listened for. */
  readonly keys: readonly string[]
  /** As it is drawn; the first key unless given. */
  readonly sign?: string
  readonly does: string
}

const views = {
  front: 'Front',
  left: 'Client’s left',
  right: 'Client’s right',
  'under-chin': 'Under the chin',
  crown: 'Crown',
  nape: 'Nape',
} as const

const at = <P extends Place, T extends Record<string, Omit<Shortcut, 'where'>>>(where: P, of: T) =>
  Object.fromEntries(
    Object.entries(of).map(([id, s]) => [id, { where, ...s }]),
  ) as unknown as Readonly<Record<keyof T, Shortcut>>

export const SHORTCUTS = {
  ...at('everywhere', {
    find: { keys: ['mod+K'], sign: 'Ctrl K', does: 'Finds a client, a page or an act' },
    keys: { keys: ['?', 'shift+?'], sign: '?', does: 'Shows all keys' },
  }),
  ...at('lists', {
    'new-client': { keys: ['N'], does: 'A new client' },
    'open-next': { keys: ['Enter'], does: 'Opens who comes next; starts a first visit' },
  }),
  ...at('week', {
    'week-add': { keys: ['N'], does: 'A new appointment at the next full hour' },
    'week-propose': { keys: ['P'], does: 'Proposes hours for everybody whose good days these are' },
    'week-offer': { keys: ['O'], does: 'Offers a free hour to those who are chosen' },
    'week-take': { keys: ['Y'], does: 'Takes all that is proposed' },
    'week-before': { keys: ['PageUp'], sign: 'Page up', does: 'The days before' },
    'week-after': { keys: ['PageDown'], sign: 'Page down', does: 'The days after' },
    'week-today': { keys: ['T'], does: 'Back to today' },
    'week-day': { keys: ['1'], does: 'One day' },
    'week-week': { keys: ['2'], does: 'A week' },
    'week-four': { keys: ['3'], does: 'Four weeks' },
    'week-previous': { keys: [','], does: 'Chooses the appointment before' },
    'week-next': { keys: ['.'], does: 'Chooses the next appointment' },
    'week-earlier': { keys: ['ArrowLeft'], sign: '←', does: 'Five minutes earlier' },
    'week-later': { keys: ['ArrowRight'], sign: '→', does: 'Five minutes later' },
    'week-day-back': { keys: ['ArrowUp'], sign: '↑', does: 'A day earlier' },
    'week-day-on': { keys: ['ArrowDown'], sign: '↓', does: 'A day later' },
    'week-shorter': { keys: ['shift+ArrowLeft'], sign: 'Shift ←', does: 'Five minutes shorter' },
    'week-longer': { keys: ['shift+ArrowRight'], sign: 'Shift →', does: 'Five minutes longer' },
    'week-other': { keys: ['W'], does: 'The next worker' },
    'week-confirm': { keys: ['C'], does: 'Confirmed' },
    'week-arrived': { keys: ['A'], does: 'Arrived' },
    'week-cancel': { keys: ['Delete'], sign: 'Del', does: 'Cancels it' },
    'week-undo': { keys: ['Z'], does: 'Takes the last change of the book back' },
    'week-leave': { keys: ['Escape'], sign: 'Esc', does: 'Lets go of what is chosen' },
  }),
  ...at('head', {
    'view-front': { keys: ['1'], does: views.front },
    'view-left': { keys: ['2'], does: views.left },
    'view-right': { keys: ['3'], does: views.right },
    'view-under-chin': { keys: ['4'], does: views['under-chin'] },
    'view-crown': { keys: ['5'], does: views.crown },
    'view-nape': { keys: ['6'], does: views.nape },
  }),
  ...at('read', {
    stroke: { keys: ['D'], does: 'Strokes: each drag from root to tip writes one direction' },
    comb: { keys: ['C'], does: 'Comb: one long stroke writes many readings' },
    test: { keys: ['T'], does: 'Guided test at the chosen zone, or where it tells most' },
    mirror: { keys: ['M'], does: 'Mirrors the chosen zone or line to the other side' },
    next: { keys: ['N'], does: 'Where the next reading would tell most' },
    guesses: { keys: ['G'], does: 'Starting guesses on and off' },
    undo: { keys: ['Z'], does: 'Takes the last act back' },
    redo: { keys: ['shift+Z'], sign: 'Shift Z', does: 'Does again what was taken back' },
    'turn-back': { keys: ['['], does: 'Turns the chosen direction back by 15°' },
    'turn-on': { keys: [']'], does: 'Turns the chosen direction on by 15°' },
    'turn-back-fine': { keys: ['shift+[', 'shift+{'], sign: 'Shift [', does: 'Back by 1°' },
    'turn-on-fine': { keys: ['shift+]', 'shift+}'], sign: 'Shift ]', does: 'On by 1°' },
    'reading-before': { keys: [','], does: 'Chooses the reading before' },
    'reading-after': { keys: ['.'], does: 'Chooses the next reading; arrows move it' },
    'on-to-plan': { keys: ['Enter'], does: 'On to the plan' },
    forget: { keys: ['Delete'], sign: 'Del', does: 'Forgets the chosen reading' },
  }),
  ...at('test', {
    slides: { keys: ['ArrowLeft'], sign: '←', does: 'It slides' },
    catches: { keys: ['ArrowRight'], sign: '→', does: 'It catches' },
    'take-back': { keys: ['Backspace'], sign: '⌫', does: 'Takes the last answer back' },
    'leave-test': { keys: ['Escape'], sign: 'Esc', does: 'Leaves the test' },
  }),
  ...at('lines', {
    'move-left': { keys: ['ArrowLeft'], sign: '←', does: 'Moves what is chosen to the left' },
    'move-right': { keys: ['ArrowRight'], sign: '→', does: 'Moves what is chosen to the right' },
    'move-up': { keys: ['ArrowUp'], sign: '↑', does: 'Moves what is chosen up' },
    'move-down': { keys: ['ArrowDown'], sign: '↓', does: 'Moves what is chosen down' },
    'let-go': { keys: ['Escape'], sign: 'Esc', does: 'Lets the line go' },
  }),
  ...at('plan', {
    'plan-gentlest': { keys: ['7'], does: 'The gentlest plan' },
    'plan-balanced': { keys: ['8'], does: 'The balanced plan' },
    'plan-closest': { keys: ['9'], does: 'The closest plan' },
    keep: { keys: ['K'], does: 'Keeps this plan' },
    'on-to-chair': { keys: ['Enter'], does: 'On to the chair, once it is kept' },
    lanes: { keys: ['L'], does: 'The lanes in order' },
    compare: { keys: ['C'], does: 'What differs between the plans' },
    why: { keys: ['W'], does: 'Why it is so' },
    time: { keys: ['T'], does: 'How long, and when what is ready' },
    blades: { keys: ['B'], does: 'What to lay out' },
    'plan-undo': { keys: ['Z'], does: 'Takes the last change of the plan back' },
  }),
  ...at('return', {
    'look-undo': { keys: ['Z', 'mod+Z'], does: 'Takes the last change of the look back' },
  }),
  ...at('ready', {
    begin: { keys: ['space'], sign: 'Space', does: 'Begins; also by pedal' },
    'to-plan': { keys: ['Escape'], sign: 'Esc', does: 'Back to the plan' },
    card: { keys: ['C'], does: 'Shows the card' },
    voice: { keys: ['V'], does: 'Says each step aloud, or no longer' },
    wall: { keys: ['W'], does: 'The second screen' },
  }),
  ...at('chair', {
    done: { keys: ['space', 'PageDown'], sign: 'Space', does: 'Done, next; also by pedal' },
    back: { keys: ['PageUp'], sign: 'Page up', does: 'One step back' },
    nick: { keys: ['N'], does: 'A nick' },
    tug: { keys: ['T'], does: 'The blade tugs' },
    pressure: { keys: ['E'], does: 'It needs pressure' },
    blade: { keys: ['B'], does: 'A new blade' },
    lather: { keys: ['R'], does: 'Fresh lather' },
    pause: { keys: ['P'], does: 'Holds the clock' },
    skip: { keys: ['S'], does: 'Skips this lane' },
    more: { keys: ['M'], does: 'What else can be done' },
    reddens: { keys: ['W'], does: 'Skin reddens' },
    'leave-out': { keys: ['L'], does: 'Leaves a place out' },
    stop: { keys: ['X'], does: 'The client asks to stop' },
    answer: {
      keys: ['1', '2', '3', '4', '5', '6', '7', '8', '9'],
      sign: '1 … 9',
      does: 'Takes the answer of that number',
    },
    'answer-first': { keys: ['space'], sign: 'Space', does: 'Takes what is offered first' },
    'answer-close': { keys: ['Escape'], sign: 'Esc', does: 'Closes what is asked' },
    'felt-back': { keys: ['['], does: 'Turns what was felt back by 15°' },
    'felt-on': { keys: [']'], does: 'Turns what was felt on by 15°' },
  }),
} satisfies Record<string, Shortcut>

export type ShortcutId = keyof typeof SHORTCUTS

export const shortcut = (id: ShortcutId): Shortcut => SHORTCUTS[id]
export const signOf = (id: ShortcutId): string => shortcut(id).sign ?? shortcut(id).keys[0]!

/** As `aria-keyshortcuts` wants it: "Control+K". */
export const ariaKeys = (id: ShortcutId): string =>
  shortcut(id)
    .keys.map((k) =>
      k.replace('mod', 'Control').replace('space', 'Space').replace('shift', 'Shift'),
    )
    .join(' ')

/** What the hand does that is no key. */
export const GESTURES = [
  ['Drag on the head', 'Read: from root to tip, writes a direction'],
  ['Right drag, two fingers', 'Turns the head'],
  ['Wheel, pinch', 'Closer, farther'],
] as const

/** The keys by place, in order. */
export const keysByPlace = (): readonly (readonly [string, readonly Shortcut[]])[] =>
  PLACES.map(([id, name]) => [name, Object.values(SHORTCUTS).filter((s) => s.where === id)])

/** The table for the README. */
export const keysMarkdown = (): string =>
  [
    '| Where | Key | What it does |',
    '| --- | --- | --- |',
    ...PLACES.flatMap(([place, name]) =>
      (Object.keys(SHORTCUTS) as ShortcutId[])
        .filter((id) => shortcut(id).where === place)
        .map((id) => `| ${name} | \`${signOf(id)}\` | ${shortcut(id).does} |`),
    ),
    ...GESTURES.map(([what, does]) => `| By hand | ${what} | ${does} |`),
  ].join('\n')

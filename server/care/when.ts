/** Moments in words, as this machine keeps time: "Thu 26 Nov, 18:16". */
export const WHEN = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
})

export const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })

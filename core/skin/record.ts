/** What was seen of a client's last answered services. */
export interface SkinRecord {
  readonly visits: number
  /** On how many a zone was at redness 2 or more. */
  readonly reddened: number
  /** Whether it was so, oldest first. Absent in plans kept before it was told. */
  readonly each?: readonly boolean[]
}

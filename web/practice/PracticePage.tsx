/** What the practice page will hold, said honestly. */
export function PracticePage() {
  return (
    <main className="page narrow">
      <div className="page-head">
        <h1>Practice</h1>
        <p>to get better at it</p>
      </div>
      <p>
        Not built yet: drills for reading the grain on a head whose truth is hidden, for angle and
        for order of work, and what your own services show about them.
      </p>
      <p>
        Until then the best practice is at the chair: read the neck in at least three places, and
        compare what you felt with what the first pass found.
      </p>
    </main>
  )
}

import { COURSE_WORLDS, courseHeld } from './core/testing/honest/course.ts'
for (const [n, w] of Object.entries(COURSE_WORLDS)) { const r = courseHeld(3, 4000, w); console.log(n, r.within.map(x=>x.toFixed(3)).join(' '), 'above', r.above.map(x=>x.toFixed(3)).join(' ')) }

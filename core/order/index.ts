/** Finding an order of jobs. */
export { MOST_EXACT } from './exact.ts'
export { keepsOrder, orderProblem, type OrderProblem } from './problem.ts'
export { findOrder, OrderSearch } from './search.ts'

/** Entries made apart, put together. */
export { type Differing, type Joined, joinThree, type Manner, withField } from './threeWay.ts'

/** Statistics. */
export { ewma, type EwmaPoint } from './ewma.ts'
export { median, mostHave, sum } from './lists.ts'
export { gammaPoissonAtLeast, gammaPoissonPmf } from './negativeBinomial.ts'
export { normalCdf, Z_90 } from './normal.ts'
export { oddsWords, percentWords, timesWords } from './percent.ts'
export { CountRows, fitPoisson, type PoissonRow } from './poissonRegression.ts'
export { drawGamma, drawNormal, drawPoisson, mulberry32 } from './random.ts'
export { clopperPearson, garwood, holm, type Interval, rateRatio } from './rates.ts'

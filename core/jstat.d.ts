/** The few functions of jstat that the tests compare with. */
declare module 'jstat' {
  const jstat: {
    normal: { cdf(x: number, mean: number, sd: number): number }
    negbin: { pdf(k: number, r: number, p: number): number }
  }
  export default jstat
}

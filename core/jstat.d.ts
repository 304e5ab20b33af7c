/** The few functions of jstat that are used here. */
declare module 'jstat' {
  interface Inverse {
    inv(p: number, a: number, b: number): number
    cdf(x: number, a: number, b: number): number
  }
  const jstat: {
    normal: {
      cdf(x: number, mean: number, sd: number): number
      pdf(x: number, mean: number, sd: number): number
      inv(p: number, mean: number, sd: number): number
    }
    /** log Γ(x) */
    gammaln(x: number): number
    negbin: { pdf(k: number, r: number, p: number): number }
    beta: Inverse
    /** Shape and scale. */
    gamma: Inverse
    chisquare: { inv(p: number, dof: number): number; cdf(x: number, dof: number): number }
    binomial: { cdf(k: number, n: number, p: number): number }
    studentt: { inv(p: number, dof: number): number }
  }
  export default jstat
}

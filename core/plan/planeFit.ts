/** A plane laid over values by weighted least squares: v ≈ at + x · slopeX + y · slopeY. */
export class PlaneFit {
  private w = 0
  private wx = 0
  private wy = 0
  private wv = 0
  private wxx = 0
  private wxy = 0
  private wyy = 0
  private wxv = 0
  private wyv = 0

  /** One value at a place. */
  add(weight: number, x: number, y: number, v: number): void {
    this.w += weight
    this.wx += weight * x
    this.wy += weight * y
    this.wv += weight * v
    this.wxx += weight * x * x
    this.wxy += weight * x * y
    this.wyy += weight * y * y
    this.wxv += weight * x * v
    this.wyv += weight * y * v
  }

  /**
   * The plane; undefined where the places lie on one line.
   * @param ridge draws the slopes to nothing, as if by all the weight at this distance
   */
  solve(ridge = 0): { at: number; slopeX: number; slopeY: number } | undefined {
    const { w, wx, wy, wv } = this
    const held = w * ridge * ridge
    const xx = this.wxx - (wx * wx) / w + held
    const xy = this.wxy - (wx * wy) / w
    const yy = this.wyy - (wy * wy) / w + held
    const xv = this.wxv - (wx * wv) / w
    const yv = this.wyv - (wy * wv) / w
    const det = xx * yy - xy * xy
    if (!(det > 1e-9)) return undefined
    const slopeX = (xv * yy - yv * xy) / det
    const slopeY = (yv * xx - xv * xy) / det
    return { at: (wv - slopeX * wx - slopeY * wy) / w, slopeX, slopeY }
  }
}

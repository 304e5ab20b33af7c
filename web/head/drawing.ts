/** Who draws the head: a card, or the processor in a card's place, which smooths no edge so that the hand need not wait. */
let bySoftware: boolean | undefined

export function drawnBySoftware(): boolean {
  if (bySoftware === undefined) {
    const gl = document.createElement('canvas').getContext('webgl2')
    const named = gl?.getExtension('WEBGL_debug_renderer_info')
    const name = named ? String(gl!.getParameter(named.UNMASKED_RENDERER_WEBGL)) : ''
    bySoftware = isSoftware(name)
    gl?.getExtension('WEBGL_lose_context')?.loseContext()
  }
  return bySoftware
}

/** @param name what the driver calls itself */
export const isSoftware = (name: string) =>
  /swiftshader|llvmpipe|softpipe|software|basic render/i.test(name)

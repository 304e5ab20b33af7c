/** Telephones take pictures of fifty million points; the house keeps them smaller, so they are sent smaller. */
const WIDEST_PX = 2400
const QUALITY = 0.9

/** The picture upright and at most so wide; the file as it is where the browser cannot read it. */
export async function shrunk(file: File): Promise<Blob> {
  try {
    const whole = await createImageBitmap(file, { imageOrientation: 'from-image' })
    const share = Math.min(1, WIDEST_PX / Math.max(whole.width, whole.height))
    if (share === 1) return file
    const canvas = new OffscreenCanvas(
      Math.round(whole.width * share),
      Math.round(whole.height * share),
    )
    canvas.getContext('2d')!.drawImage(whole, 0, 0, canvas.width, canvas.height)
    whole.close()
    return await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY })
  } catch {
    return file
  }
}

/** An SVG document as a bitmap, so many times as large as its own pixels. */
export async function pngOf(
  svg: string,
  { width, height }: { width: number; height: number },
  scale: number,
): Promise<Blob> {
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }))
  try {
    const image = new Image()
    image.src = url
    await image.decode()
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(width * scale)
    canvas.height = Math.round(height * scale)
    const context = canvas.getContext('2d')
    if (!context) throw new Error('this browser has no canvas to draw on')
    context.drawImage(image, 0, 0, canvas.width, canvas.height)
    return await new Promise<Blob>((resolve, reject) => {
      canvas.toBlob((blob) => {
        if (blob) resolve(blob)
        else reject(new Error('the picture is too large for this browser'))
      }, 'image/png')
    })
  } finally {
    URL.revokeObjectURL(url)
  }
}

/** Files handed to the reader: what the page holds, what the service makes, a drawing as a picture. */
export function give(data: Blob, file: string) {
  const a = document.createElement('a')
  a.href = URL.createObjectURL(data)
  a.download = file
  a.click()
  URL.revokeObjectURL(a.href)
}

/** An SVG drawn on white at twice its size. */
export async function pngOf(svg: string, file: string) {
  if (!svg) return
  const image = new Image()
  image.src = `data:image/svg+xml;utf8,${encodeURIComponent(svg)}`
  await image.decode()
  const canvas = document.createElement('canvas')
  canvas.width = image.width * 2
  canvas.height = image.height * 2
  const pen = canvas.getContext('2d')!
  pen.fillStyle = '#fff'
  pen.fillRect(0, 0, canvas.width, canvas.height)
  pen.drawImage(image, 0, 0, canvas.width, canvas.height)
  const made = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
  if (made) give(made, file)
}

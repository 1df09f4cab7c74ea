import QRCode from 'qrcode'

/** A QR code as one path of unit squares, with its quiet zone of four about it. */
export function qrPath(text: string): { path: string; size: number } {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' })
  let path = ''
  for (let y = 0; y < modules.size; y++)
    for (let x = 0; x < modules.size; x++) if (modules.get(y, x)) path += `M${x + 4} ${y + 4}h1v1h-1z`
  return { path, size: modules.size + 8 }
}

import { createHash } from 'node:crypto'
import sharp, { type Sharp } from 'sharp'

/** Points of every colour, the same each time, which nothing can press together. */
export function noise(width: number, height: number): Sharp {
  const points = createHash('shake256', { outputLength: width * height * 3 }).update('noise').digest()
  return sharp(points, { raw: { width, height, channels: 3 } })
}

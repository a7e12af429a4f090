import sharp, { type Sharp } from 'sharp'
import { seededRandom } from '~~/practice/carrier/faults'

const random = seededRandom(7)

/** Points of every colour, which nothing can press together. */
export function noise(width: number, height: number): Sharp {
  const points = Buffer.alloc(width * height * 3)
  for (let i = 0; i < points.length; i++) points[i] = random() * 256
  return sharp(points, { raw: { width, height, channels: 3 } })
}

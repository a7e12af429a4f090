import sharp, { type Sharp } from 'sharp'
import { MOST_BYTES_OUT, MOST_PIXELS, type PictureType } from '~~/shared/pictures'
import { badInput, Problem } from '../http/problem'

// only these are ever unpacked: a file of another kind meets no code that would read it
sharp.block({ operation: ['VipsForeignLoad'] })
sharp.unblock({ operation: ['VipsForeignLoadJpeg', 'VipsForeignLoadPng', 'VipsForeignLoadNsgif', 'VipsForeignLoadWebp'] })

export interface SmallPicture { type: PictureType, width: number, height: number, bytes: Buffer }

/** Ways to make a picture, the best first: its longest edge in pixels, and for JPEG the quality. */
const PHOTO = [[1600, 82], [1600, 68], [1280, 68], [1024, 60], [800, 55], [480, 50]] as const
const DRAWING = [1600, 1280] as const
const MOVING = [640, 480, 320, 240] as const

/**
 * Makes a picture fit for the air: upright, within the bytes that carriers take, and without what the camera
 * wrote into it (the place above all). What it is decides its content, never its name. Photographs become JPEG,
 * drawings stay PNG while they fit, what moves stays GIF.
 *
 * @throws Problem 422 for what is no picture, is damaged, or cannot be made small enough
 */
export async function shrinkPicture(file: Buffer): Promise<SmallPicture> {
  const open = (animated: boolean) => sharp(file, { animated, limitInputPixels: MOST_PIXELS, failOn: 'error' })
  const facts = file.length === 0 ? null : await open(false).metadata().catch(() => null)
  if (!facts) throw badInput({ picture: 'This is no picture that telephones show. Take a JPEG, PNG, GIF or WebP.' })
  const { format, width, height, pages = 1 } = facts
  try {
    if (width * height * pages > MOST_PIXELS)
      throw badInput({ picture: `The picture has more than ${MOST_PIXELS / 1e6} million points. Make it smaller first.` })
    for await (const { data, info } of attempts(format === 'jpeg', pages > 1, open)) {
      if (data.length <= MOST_BYTES_OUT)
        return { type: `image/${info.format as 'jpeg'}`, width: info.width, height: info.pageHeight ?? info.height, bytes: data }
    }
  }
  catch (error) {
    if (error instanceof Problem) throw error
    throw badInput({ picture: 'The picture cannot be read; its file may be damaged. Save it anew, or take another one.' })
  }
  throw badInput({ picture: `It cannot be made smaller than ${MOST_BYTES_OUT / 1000} kB. Take a shorter one.` })
}

async function* attempts(photo: boolean, moves: boolean, open: (animated: boolean) => Sharp) {
  const within = (edge: number, animated = false) =>
    open(animated).autoOrient().resize({ width: edge, height: edge, fit: 'inside', withoutEnlargement: true })
  const made = (picture: Sharp) => picture.toBuffer({ resolveWithObject: true })
  if (moves) {
    for (const edge of MOVING) yield await made(within(edge, true).gif())
    return
  }
  if (!photo) for (const edge of DRAWING) yield await made(within(edge).png({ compressionLevel: 9 }))
  for (const [edge, quality] of PHOTO) yield await made(within(edge).flatten({ background: '#ffffff' }).jpeg({ quality, mozjpeg: true }))
}

import sharp from 'sharp'
import { MOST_BYTES_OUT } from '~~/shared/pictures'
import { shrinkPicture } from '~~/server/texting/shrink-picture'
import { noise } from '../../support/noise'

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const small = () => noise(40, 30).png().toBuffer()

describe('making a picture small', () => {
  it('turns it upright, within the bytes of a carrier, and takes out where it was taken', async () => {
    const photo = await noise(1200, 900)
      .jpeg({ quality: 95 })
      .withExif({ IFD0: { Make: 'Invented' }, IFD3: { GPSLatitude: '45/1 31/1 0/1', GPSLatitudeRef: 'N' } })
      .withMetadata({ orientation: 6 })
      .toBuffer()
    expect((await sharp(photo).metadata()).exif).toBeDefined()
    const made = await shrinkPicture(photo)
    expect(made).toMatchObject({ type: 'image/jpeg' })
    expect(made.height).toBeGreaterThan(made.width)
    expect(made.bytes.length).toBeLessThanOrEqual(MOST_BYTES_OUT)
    const after = await sharp(made.bytes).metadata()
    expect([after.exif, after.orientation, after.iptc, after.xmp]).toEqual([undefined, undefined, undefined, undefined])
    expect([after.width, after.height]).toEqual([made.width, made.height])
  })

  it.each([
    ['a drawing stays PNG', () => small(), 'image/png'],
    ['a WebP becomes what every telephone shows', () => noise(40, 30).webp().toBuffer(), 'image/png'],
    ['a large drawing becomes a photograph', () => noise(900, 700).png().toBuffer(), 'image/jpeg'],
  ])('%s', async (_, file, type) => expect(await shrinkPicture(await file())).toMatchObject({ type }))

  it('keeps what moves moving', async () => {
    const moving = await sharp(Buffer.from(Array.from({ length: 20 * 40 * 3 }, (_, i) => i % 251)), {
      raw: { width: 20, height: 40, channels: 3, pageHeight: 20 },
    })
      .gif({ delay: [80, 80] })
      .toBuffer()
    const made = await shrinkPicture(moving)
    expect(made).toMatchObject({ type: 'image/gif', width: 20, height: 20 })
    expect((await sharp(made.bytes).metadata()).pages).toBe(2)
  })

  it.each([
    ['a drawing in code', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>'), 'no picture'],
    ['words under a picture’s name', Buffer.from('not a picture at all'), 'no picture'],
    ['nothing', Buffer.alloc(0), 'no picture'],
    ['half a file', null, 'cannot be read'],
  ])('refuses %s', async (_, file, says) => {
    const half = (await noise(200, 200).png().toBuffer()).subarray(0, 3_000)
    await expect(shrinkPicture(file ?? half)).rejects.toMatchObject(problem(422, { fields: { picture: expect.stringContaining(says) } }))
  })

  it('refuses what would unpack to more points than it takes', async () => {
    const flat = await sharp({ create: { width: 8_000, height: 6_000, channels: 3, background: '#fff' } })
      .png({ compressionLevel: 9 })
      .toBuffer()
    expect(flat.length).toBeLessThan(1_000_000)
    await expect(shrinkPicture(flat)).rejects.toMatchObject(problem(422))
  })
})

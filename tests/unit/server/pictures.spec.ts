import { v7 as uuid } from 'uuid'
import { draftForm } from '~~/shared/schemas/texting'
import { draftsOf, keepDraft } from '~~/server/texting/drafts'
import { dropPicture, readPicture, takePicture } from '~~/server/texting/pictures'
import { takeEvent } from '~~/server/texting/events'
import { sendText } from '~~/server/texting/send'
import { TAKE_BACK_MS } from '~~/shared/texting'
import { takeBack } from '~~/server/texting/take-back'
import { readTimeline } from '~~/server/timeline/read'
import { newRef } from '~~/core/message/ref'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'
import { noise } from '../../support/noise'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const LEFT = later(DAY, TAKE_BACK_MS)

const small = () => noise(40, 30).png().toBuffer()
const put = async (who = firm.ada, at = DAY) => (await takePicture(who, uuid(), await small(), at)).id

describe('a text with pictures', () => {
  it('goes as one message, with its pictures, and shows them to who sees the record', async () => {
    const carrier = fakeCarrier()
    const { recordId, phoneId } = await makeLead(firm.ada)
    const ids = [await put(), await put()]
    await sendText(firm.ada, textTo(phoneId, firm.portland, { text: 'a'.repeat(300), pictureIds: ids }), DAY)
    await drain(LEFT)
    expect(carrier.asked).toMatchObject([{ pictures: [{ type: 'image/png' }, { type: 'image/png' }] }])
    const [entry] = (await readTimeline(firm.mika, recordId)).entries
    expect(entry!.message).toMatchObject({ parts: 1, pictures: [{ id: ids[0], width: 40, height: 30 }, { id: ids[1] }] })
    expect((await readPicture(firm.mika, ids[0]!)).type).toBe('image/png')
    await expect(readPicture(firm.noor, ids[0]!)).rejects.toMatchObject(problem(404))
    await expect(sendText(firm.ada, textTo(phoneId, firm.portland, { pictureIds: [ids[0]!] }), DAY)).rejects.toMatchObject(
      problem(422, { fields: { pictureIds: expect.stringContaining('not there any more') } }),
    )
  })

  it('goes once when it is sent several times in one moment, and each gives the first result', async () => {
    fakeCarrier()
    const { phoneId } = await makeLead(firm.ada)
    // whichever step of the first the others come into
    for (let times = 0; times < 8; times++) {
      const form = textTo(phoneId, firm.portland, { pictureIds: [await put()] })
      const results = await Promise.all(Array.from({ length: 12 }, async (_, i) => {
        await new Promise(resolve => setTimeout(resolve, i * 2))
        return sendText(firm.ada, form, DAY)
      }))
      expect(new Set(results.map(({ activityId }) => activityId)).size).toBe(1)
    }
  })

  it('may have no words', async () => {
    fakeCarrier()
    const { phoneId } = await makeLead(firm.ada)
    await sendText(firm.ada, textTo(phoneId, firm.portland, { text: '', pictureIds: [await put()] }), DAY)
    await expect(sendText(firm.ada, textTo(phoneId, firm.portland, { text: '' }), DAY)).rejects.toMatchObject(
      problem(422, { fields: { text: 'Write the text first.' } }),
    )
  })

  it('gives them back with its words when it is taken back', async () => {
    const { recordId, phoneId } = await makeLead(firm.ada)
    const id = await put()
    const form = textTo(phoneId, firm.portland, { pictureIds: [id] })
    await sendText(firm.ada, form, DAY)
    expect(await takeBack(firm.ada, form.id, DAY)).toMatchObject({ text: form.text, pictureIds: [id] })
    expect((await readTimeline(firm.ada, recordId)).entries[0]!.message!.pictures).toEqual([])
    await sendText(firm.ada, { ...form, id: uuid() }, DAY)
  })

  it('is refused where the country takes none, with more than the carrier takes, and with another’s', async () => {
    const { phoneId } = await makeLead(firm.ada)
    const { phoneId: there } = await makeLead(firm.noor, { region: 'NS', country: 'CA' }, '902 555 0161')
    const fields = (says: string) => problem(422, { fields: { pictureIds: expect.stringContaining(says) } })
    await expect(sendText(firm.noor, textTo(there, firm.halifax, { pictureIds: [await put(firm.noor)] }), DAY)).rejects.toMatchObject(
      fields('takes none'),
    )
    await expect(
      sendText(firm.ada, textTo(phoneId, firm.portland, { pictureIds: [await put(), await put(), await put(), await put()] }), DAY),
    ).rejects.toMatchObject(fields('3 pictures'))
    await expect(sendText(firm.ada, textTo(phoneId, firm.portland, { pictureIds: [await put(firm.mika)] }), DAY)).rejects.toMatchObject(
      fields('not there'),
    )
  })
})

describe('a picture that is not sent yet', () => {
  it('is its writer’s alone, the same when it is put in again, and gone when taken out', async () => {
    const file = await small()
    const id = uuid()
    const first = await takePicture(firm.ada, id, file, DAY)
    expect(await takePicture(firm.ada, id, file, DAY)).toEqual(first)
    await expect(takePicture(firm.mika, id, file, DAY)).rejects.toMatchObject(problem(422))
    await expect(readPicture(firm.mika, id)).rejects.toMatchObject(problem(404))
    await dropPicture(firm.mika, id)
    await readPicture(firm.ada, id)
    await dropPicture(firm.ada, id)
    await expect(readPicture(firm.ada, id)).rejects.toMatchObject(problem(404))
  })

  it('is forgotten after a month, but for those that a draft holds', async () => {
    const { recordId } = await makeLead(firm.ada)
    const [lost, kept] = [await put(), await put()]
    await keepDraft(
      firm.ada,
      draftForm.validateSync({ key: `record ${recordId}`, text: '', at: DAY.getTime(), ref: newRef(() => 55_555), pictureIds: [kept] }),
    )
    expect((await draftsOf(firm.ada))[0]).toMatchObject({ text: '', pictureIds: [kept] })
    await put(firm.ada, later(DAY, 31 * 86_400_000))
    await readPicture(firm.ada, kept)
    await expect(readPicture(firm.ada, lost)).rejects.toMatchObject(problem(404))
  })
})

describe('pictures that come in', () => {
  const received = (lead: { e164: string }, pictures: string[], text = 'Here it is') =>
    takeEvent('practice', { id: uuid(), at: DAY, kind: 'received', ref: uuid(), from: lead.e164, to: firm.portland.e164, text, pictures }, DAY)
  const shown = async (recordId: string) => (await readTimeline(firm.ada, recordId)).entries.find(({ kind }) => kind === 'text-in')!.message!

  it('are fetched, made small without what the camera wrote, and shown to who may read the text', async () => {
    const carrier = fakeCarrier()
    const lead = await makeLead(firm.ada)
    carrier.pictures.set('a.jpg', await noise(200, 150).resize(2_000, 1_500).jpeg().withExif({ IFD3: { GPSLatitude: '21/1 18/1 0/1' } }).toBuffer())
    await received(lead, ['a.jpg'])
    expect(await shown(lead.recordId)).toMatchObject({ pictures: [], picturesToCome: 1 })
    await drain(DAY)
    const { pictures: [picture], picturesToCome } = await shown(lead.recordId)
    expect([picture!.width / picture!.height, picturesToCome]).toEqual([4 / 3, 0])
    expect(picture!.width).toBeLessThan(2_000)
    expect((await readPicture(firm.mika, picture!.id)).bytes.includes('GPS')).toBe(false)
    await expect(readPicture(firm.noor, picture!.id)).rejects.toMatchObject(problem(404))
  })

  it('are asked for again while the carrier is away, and left out where they are none', async () => {
    const carrier = fakeCarrier()
    const lead = await makeLead(firm.ada)
    carrier.pictures.set('b.png', 'away').set('c.png', Buffer.from('<script>alert(1)</script>'))
    await received(lead, ['b.png', 'c.png', 'gone.png'])
    await drain(DAY)
    expect(await shown(lead.recordId)).toMatchObject({ pictures: [], picturesToCome: 1 })
    carrier.pictures.set('b.png', await small())
    await drain(later(DAY, 20_000))
    expect(await shown(lead.recordId)).toMatchObject({ pictures: [{ width: 40 }], picturesToCome: 0 })
  })
})

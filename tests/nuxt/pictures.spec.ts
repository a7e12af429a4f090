import { asked, away, before, refuse } from '../support/app'
import { shallowRef } from 'vue'
import { MOST_BYTES_IN } from '~~/shared/pictures'
import { usePictures } from '~/composables/pictures'

const file = (name: string, size = 10, type = 'image/png') => ({ name, size, type }) as File
/** A server that takes pictures, or does as it is told. */
const server = (take: () => unknown = () => ({ id: `taken${asked.length}` })) =>
  new Proxy(
    {},
    { get: (_, key) => (String(key).startsWith('PUT /api/pictures/') ? take : String(key).startsWith('DELETE') ? () => null : undefined) },
  )

describe('pictures of a text', () => {
  it('go to the server one after the other, and stand in the draft', async () => {
    before(server())
    const ids = shallowRef<string[]>(['first'])
    const { add, comingIn, problem } = usePictures(ids)
    const adding = add([file('a.png'), file('b.png')])
    expect(comingIn.value).toBe(1)
    await adding
    expect([ids.value, comingIn.value, problem.value]).toEqual([['first', 'taken1', 'taken2'], 0, ''])
  })

  it('that are too large are not even sent; the others are', async () => {
    before(server())
    const ids = shallowRef<string[]>([])
    const { add, problem } = usePictures(ids)
    await add([file('small.png'), file('huge.png', MOST_BYTES_IN + 1)])
    expect([ids.value.length, asked.length]).toEqual([1, 1])
    expect(problem.value).toMatch(/^huge\.png has more than \d+ MB/)
  })

  it.each([
    [() => refuse(422, 'bad-input', 'Look at the marked fields.', { fields: { picture: 'This is no picture.' } }), /^This is no picture/],
    [away, /cannot be reached/],
  ])('that are refused say why', async (take, words) => {
    before(server(take))
    const { add, comingIn, problem } = usePictures(shallowRef([]))
    await add([file('a.png')])
    expect([problem.value, comingIn.value]).toEqual([expect.stringMatching(words), 0])
  })

  it('are taken out at once', async () => {
    before(server())
    const ids = shallowRef(['one', 'two'])
    const { remove } = usePictures(ids)
    await remove('one')
    expect([ids.value, asked.map(({ method, path }) => `${method} ${path}`)]).toEqual([['two'], ['DELETE /api/pictures/one']])
  })

  it('are found among what was pasted, and what is none is refused in words', async () => {
    const { among, add, problem } = usePictures(shallowRef([]))
    expect(
      among({ files: [file('a.png'), file('notes.txt', 10, 'text/plain')] } as unknown as DataTransfer).map(({ name }) => name),
    ).toEqual(['a.png', 'notes.txt'])
    await add([file('offer.pdf', 10, 'application/pdf')])
    expect(problem.value).toBe('offer.pdf is no picture, and texts carry nothing else. Take a picture of it, or send its link.')
    expect(among(null)).toEqual([])
  })
})

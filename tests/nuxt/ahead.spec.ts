import { askedFor, before, refuse, settled, tell } from '../support/app'
import { useAhead } from '~/stores/ahead'

const PAGE = ['GET /api/records/r1', 'GET /api/records/r1/timeline', 'GET /api/records/r1/composer']
const server = (name = () => 'Iris Holm') => ({
  'GET /api/records/r1': () => ({ name: name() }),
  'GET /api/records/r1/composer': () => ({}),
  'GET /api/records/r1/timeline': () => ({ entries: [], more: false, newer: false }),
})

describe('the page of whoever comes next', () => {
  it('is loaded once, and taken once', async () => {
    before(server())
    const ahead = useAhead()
    ahead.load('r1')
    await settled()
    expect(askedFor()).toEqual(PAGE)
    expect((await ahead.take('r1')!.record).name).toBe('Iris Holm')
    expect(ahead.take('r1')).toBeNull()
    expect(askedFor()).toHaveLength(3)
  })

  it('is of nobody else', async () => {
    before(server())
    const ahead = useAhead()
    ahead.load('r1')
    await settled()
    expect(ahead.take('r2')).toBeNull()
  })

  it('is loaded anew when something happens to them, and not for anybody else', async () => {
    let name = 'Iris Holm'
    before(server(() => name))
    const ahead = useAhead()
    ahead.load('r1')
    await settled()
    name = 'Iris Holm-Berg'
    tell({ kind: 'record', recordId: 'r2' })
    tell({ kind: 'presence', place: { of: 'record', id: 'r1' } })
    tell({ kind: 'call', callId: 'c1' })
    expect(askedFor()).toHaveLength(3)
    tell({ kind: 'record', recordId: 'r1' })
    expect((await ahead.take('r1')!.record).name).toBe('Iris Holm-Berg')
    tell({ kind: 'record', recordId: 'r1' })
    await settled()
    expect(askedFor()).toHaveLength(6)
  })

  it('is asked for on the page itself where it could not be loaded ahead', async () => {
    before({ ...server(), 'GET /api/records/r1/timeline': () => refuse(500, 'broken', 'Something broke.') })
    const ahead = useAhead()
    ahead.load('r1')
    await settled()
    expect(ahead.take('r1')).toBeNull()
  })
})

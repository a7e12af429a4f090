import { regularly } from '~~/server/db/regularly'

const later = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))
/** However slow the machine is: what never comes is ended by the test's own limit. */
async function until(holds: () => boolean): Promise<void> {
  while (!holds()) await later(5)
}

describe('regular work', () => {
  it('is done one piece at a time', async () => {
    let [under, most, times] = [0, 0, 0]
    const work = async () => {
      most = Math.max(most, ++under)
      times++
      await later(15)
      under--
    }
    const stop = regularly([{ every: 5, work }, { every: 7, work }])
    await until(() => times > 3)
    await stop()
    expect([most, under]).toEqual([1, 0])
  })

  it('has ended once it is stopped, and does not begin anew', async () => {
    let [begun, ended] = [0, 0]
    const stop = regularly([{ every: 5, work: async () => {
      begun++
      await later(40)
      ended++
    } }])
    await until(() => begun > 0)
    await stop()
    expect([begun, ended]).toEqual([1, 1])
    await later(30)
    expect(begun).toBe(1)
  })

  it('goes on after a failure', async () => {
    let times = 0
    const stop = regularly([{ every: 5, work: () => ++times === 1 ? Promise.reject(new Error('the disk is full')) : Promise.resolve() }])
    await until(() => times > 1)
    await stop()
    expect(times).toBeGreaterThan(1)
  })
})

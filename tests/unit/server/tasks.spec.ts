import { v7 as uuid } from 'uuid'
import { changeTaskForm, taskForm } from '~~/shared/schemas/calling'
import { readToday } from '~~/server/pages/today'
import { addTask, changeTask, openTasks, setDone } from '~~/server/tasks/tasks'
import { readTimeline } from '~~/server/timeline/read'
import { useDatabase } from '../../support/database'
import { DAY, later, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())

const problem = (status: number) => ({ details: { status } })
const task = async (day: string, title = 'Send the prices', recordId?: string) => {
  const id = uuid()
  const on = recordId ?? (await makeLead(firm.ada)).recordId
  await addTask(firm.ada, on, taskForm.validateSync({ id, title, day, time: '09:00' }), DAY)
  return { id, recordId: on }
}
const to = (values: object) => changeTaskForm.validateSync({ title: 'Send the prices', day: '2026-12-01', time: '10:00', colleagueId: firm.ada.id, ...values })

describe('a task', () => {
  it('is put to another time, in other words and into other hands, and the timeline says so', async () => {
    const { id, recordId } = await task('2026-11-30')
    await changeTask(firm.mika, id, to({ title: 'Send the new prices', colleagueId: firm.mika.id }), DAY)
    expect(await openTasks(firm.ada, { recordId })).toMatchObject([
      { title: 'Send the new prices', wallTime: '2026-12-01T10:00', zone: 'Pacific/Honolulu', owner: { id: firm.mika.id } },
    ])
    expect((await readTimeline(firm.ada, recordId)).entries[0]).toMatchObject({
      kind: 'task-changed', words: 'Send the new prices', data: { to: 'Mika', wallTime: '2026-12-01T10:00' },
    })
  })

  it('goes to nobody who could not see it, is changed by nobody who may not, and not once it is done', async () => {
    const { id } = await task('2026-11-30')
    await expect(changeTask(firm.ada, id, to({ colleagueId: firm.noor.id }), DAY)).rejects.toMatchObject(problem(422))
    await expect(changeTask(firm.noor, id, to({}), DAY)).rejects.toMatchObject(problem(404))
    await setDone(firm.ada, id, true, DAY)
    await expect(changeTask(firm.ada, id, to({}), DAY)).rejects.toMatchObject(problem(409))
    await setDone(firm.ada, id, false, DAY)
    await changeTask(firm.ada, id, to({}), DAY)
  })
})

describe('today', () => {
  const FRIDAY = new Date('2026-11-27T20:00:00Z')

  it('has the next working day in sight, over a weekend too', async () => {
    const monday = await task('2026-11-30', 'On Monday')
    await task('2026-12-01', 'On Tuesday')
    const { soon, later: today } = await readToday(firm.ada, FRIDAY)
    expect(soon.map(({ id }) => id)).toContain(monday.id)
    expect([...soon, ...today].map(({ title }) => title)).not.toContain('On Tuesday')
  })

  it('is for a lead also how the day of each colleague goes, and for a rep their own alone', async () => {
    await task('2026-11-20', 'Long overdue')
    expect((await readToday(firm.ada, later(DAY, 1_000))).team).toBeNull()
    const { team } = await readToday(firm.odile, later(DAY, 1_000))
    expect(team!.map(({ name }) => name)).toEqual(['Ada Lund', 'Mika Sand', 'Noor Farouk'])
    expect(team![0]).toMatchObject({ overdue: 1, texts: 0 })
  })
})

import '../support/app'
import { nextTick, ref } from 'vue'
import { readTime } from '~~/core/hours/typed'
import { useTyped } from '~/composables/typed'
import { readAs } from '~/words/reader'
import { timeOfDay } from '~/words/time'

function field(kept: string) {
  const model = ref(kept)
  return { model, ...useTyped(model, { read: readTime, say: timeOfDay }) }
}

describe('a field in which people type in their own way', () => {
  beforeEach(() => readAs({ hours: 12, dayFirst: false }))
  afterEach(() => readAs({ hours: 24, dayFirst: true }))

  it('shows what is kept as its reader writes it, and keeps what is typed at each key', () => {
    const time = field('15:30')
    expect(time.text.value).toBe('3:30 pm')
    time.take('4')
    expect(time.model.value).toBe('04:00')
    time.take('4p')
    expect([time.model.value, time.text.value]).toEqual(['16:00', '4p'])
    time.leave()
    expect(time.text.value).toBe('4:00 pm')
  })

  it('keeps what cannot be read on screen, says so once it is left, and stands for nothing', () => {
    const time = field('15:30')
    time.take('25 o’clock')
    expect([time.model.value, time.unreadable.value, time.isSaid.value]).toEqual(['', true, false])
    time.leave()
    expect([time.text.value, time.isSaid.value]).toEqual(['25 o’clock', true])
    time.take('')
    time.leave()
    expect([time.text.value, time.unreadable.value, time.isSaid.value, time.model.value]).toEqual(['', false, false, ''])
  })

  it('is not overwritten while somebody types, and follows what is set from elsewhere', async () => {
    const time = field('09:00')
    time.take('1')
    // the form stands in what is usual, as long as nothing is said
    time.model.value = '10:00'
    await nextTick()
    expect(time.text.value).toBe('1')
    time.leave()
    time.model.value = '17:15'
    await nextTick()
    expect(time.text.value).toBe('5:15 pm')
  })
})

import fc from 'fast-check'
import { changesBetween } from '~~/core/text/changes'

describe('what changed between two wordings', () => {
  it('is read as one change where neighbouring words changed', () => {
    expect(changesBetween('I rang. Please call back.', 'I rang. When is a good moment?')).toEqual([
      { kind: 'same', words: 'I rang. ' },
      { kind: 'out', words: 'Please call back.' },
      { kind: 'in', words: 'When is a good moment?' },
    ])
  })

  it('gives both wordings again, whatever they are', () => {
    const text = fc
      .array(fc.constantFrom('Hi', 'Iris', ' ', ', ', '.', '\n', '{{ person.name }}', 'é'), { maxLength: 20 })
      .map(words => words.join(''))
    fc.assert(fc.property(text, text, (before, after) => {
      const changes = changesBetween(before, after)
      const read = (without: 'in' | 'out') => changes.filter(({ kind }) => kind !== without).map(({ words }) => words).join('')
      expect([read('in'), read('out')]).toEqual([before, after])
    }))
  })
})

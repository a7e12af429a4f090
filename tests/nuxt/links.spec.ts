import { linksIn, mayHaveLinks } from '~/words/links'

describe('links in a text', () => {
  it.each([
    [
      'See https://pannier.example/prices?for=you, please.',
      [['https://pannier.example/prices?for=you', 'https://pannier.example/prices?for=you']],
    ],
    ['Look at www.pannier.example!', [['www.pannier.example', 'http://www.pannier.example']]],
    [
      '(http://pannier.example/a_(b)) and https://holm.example.',
      [
        ['http://pannier.example/a_(b)', 'http://pannier.example/a_(b)'],
        ['https://holm.example', 'https://holm.example'],
      ],
    ],
    ['javascript:alert(1) ftp://files.example //bare.example mailto:ada@pannier.example ada@pannier.example', []],
    ['4.30 or 16:30, 2.5 kg, e.g. now', []],
  ])('of %j', async (words, links) => {
    const pieces = await linksIn(words)
    expect(pieces.map(piece => piece.words).join('')).toBe(words)
    expect(pieces.filter(({ href }) => href).map(piece => [piece.words, piece.href])).toEqual(links)
  })

  it('are looked for only where there may be any', () => {
    expect(['Hi Iris.', 'At 10:30. Yes', ''].map(mayHaveLinks)).toEqual([false, false, false])
    expect(['www.x', 'https://x', 'pannier.example'].map(mayHaveLinks)).toEqual([true, true, true])
  })
})

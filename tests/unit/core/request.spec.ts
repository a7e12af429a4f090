import { findRequest } from '~~/core/request/find'

/** A Thursday, ten past two in the afternoon. */
const WALL = '2026-12-03T14:10'

describe('a request in a text', () => {
  it.each([
    ['Can you ring me tomorrow at 3?', 'call', '2026-12-04', '15:00'],
    ['please send the address', 'send', null, null],
    ['Thanks! Could you call on Monday morning. I am in the shop then', 'call', '2026-12-07', '09:00'],
    ['Call me at 10:30am', 'call', '2026-12-04', '10:30'],
    ['call me back at 4', 'call', '2026-12-03', '16:00'],
    ['Give me a ring Thursday after 9', 'call', '2026-12-10', '09:00'],
    ['Please call this evening around 8', 'call', '2026-12-03', '20:00'],
    ['could you send me 2 racks', 'send', null, null],
    ['Rufen Sie mich bitte morgen um 15 Uhr an', 'call', '2026-12-04', '15:00'],
    ['Bitte um Rückruf übermorgen Vormittag', 'call', '2026-12-05', '09:00'],
    ['Können Sie mir die Adresse schicken? Danke, Sie können sie mir zuschicken', 'send', null, null],
    ['Pouvez-vous me rappeler demain à 15h30 ?', 'call', '2026-12-04', '15:30'],
    ['Rappelez-moi vendredi après-midi', 'call', '2026-12-04', '14:00'],
    ['Envoyez-moi l’adresse svp', 'send', null, null],
    ['¿Me puede llamar mañana por la mañana?', 'call', '2026-12-04', '09:00'],
    ['Llámeme el lunes a las 5', 'call', '2026-12-07', '17:00'],
    ['Mándame la dirección hoy', 'send', '2026-12-03', null],
  ])('%s', (text, kind, day, time) => {
    expect(findRequest(text, WALL)).toMatchObject({ kind, day, time })
  })

  it.each([
    'I will call you tomorrow', 'Please don’t call me', 'Do not call me at 3', 'no need to ring me', 'Rufen Sie mich nicht an', 'Ne m’appelez pas',
    'No me llames', 'Thanks, it works at 3', 'What is it called?', '', 'The recall was at 3', 'STOP',
  ])('is none: %s', (text) => {
    expect(findRequest(text, WALL)).toBeNull()
  })

  it('keeps the sentence as it was written, and takes the day from the one beside it', () => {
    expect(findRequest('Hello Ada. Please ring me! Tomorrow at 11 is best.', WALL))
      .toEqual({ kind: 'call', said: 'Please ring me!', day: '2026-12-04', time: '11:00' })
    expect(findRequest('Please send the price of 3.50 for at 99%', WALL)).toMatchObject({ kind: 'send', time: null })
  })
})

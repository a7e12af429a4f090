import { readIntent } from '~~/core'

/** Keywords: 47 CFR 64.1200(a)(10) and common practice, from memory. Sentences: made up, in the manner of people. */
const EXAMPLES = {
  'stop': ['STOP', 'stop', ' Stop. ', '"STOP"', '‘stop’', 'ＳＴＯＰ', 'S T O P', 'stop!!!', 'Stop all', 'STOPALL', 'unsubscribe', 'Cancel', 'END', 'quit', 'Revoke', 'opt out', 'OPT-OUT', 'optout', 'ARRÊT', 'arret', 'désabonner', 'ALTO', 'baja', 'Abmelden', '\u200bSTOP\u200b', '(stop)', 'stop\n'],
  'start': ['START', 'unstop', 'Yes', 'yes.', '“Start”'],
  'help': ['HELP', 'help?', 'Info', 'AIDE', 'ayuda'],
  'maybe-stop': [
    'please stop', 'ok STOP', 'Stop please!', 'STOP 🛑', 'Stop texting me', 'pls stop sending me these texts', 'please don’t text me again', 'Do not contact me', 'don\'t message me anymore',
    'Take me off your list', 'remove me from this list please', 'Remove my number from your system', 'no more texts', 'No more messages please', 'I want to opt out', 'how do I unsubscribe?', 'unsubscribe me',
    'leave me alone', 'Lose my number', 'I don\'t want these messages', 'I do not want to receive any more texts', 'quit texting me', 'Never text me again', 'stop with the messages', 'stop messaging this number',
    'Arrêtez de m’écrire', 'plus de textos svp', 'no me escriban más', 'Dejen de mandarme mensajes', 'no más mensajes por favor', 'Bitte keine SMS mehr', 'Stop sending me this',
    'You keep writing. Please stop contacting me.', 'I would like to be removed', 'opt me out',
  ],
  'none': [
    '', 'Can you stop by the shop tomorrow?', 'I’ll stop by at 5', 'Meet at the bus stop', 'The end of the lease is in May', 'Please cancel the Tuesday appointment', 'cancel my trial week, we take the long lease',
    'I had to quit my last job', 'Help is welcome on Friday', 'I need help with the brakes', 'More info please', 'Yes, Thursday works', 'yes please', 'We start at 8', 'Don’t stop texting me these offers',
    'Please don’t text me before 9', 'Do not call me at work', 'Could you end the contract in June?', 'The bike won’t stop squeaking', 'Non-stop rain here', 'Stop the presses: we are in!', 'No problem', 'no',
    'We had to stop the trial after two days, can we talk?', 'I can take the bikes off your hands', 'Leave the bikes by the door', 'I lost your number', 'Did you stop sending the invoices?', 'That is all, thanks', 'I end my shift at 6',
  ],
} as const

describe('readIntent', () => {
  it.each(Object.entries(EXAMPLES).flatMap(([intent, texts]) => texts.map(text => [text, intent])))('reads %j as %s', (text, intent) => {
    expect(readIntent(text)).toBe(intent)
  })
})

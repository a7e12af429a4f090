/**
 * How people ask for something in a text, by language: without accents, in small letters. Gathered from everyday use (common
 * practice); whoever misses a phrase adds it here and a line to the test.
 */
export interface RequestWords {
  /** Asks us to ring them. */
  call: readonly string[]
  /** Asks us to send something. */
  send: readonly string[]
  /** How a sentence begins that asks something, with or without its mark. */
  asks: readonly string[]
  /** With one of these in the same sentence it is no wish. */
  not: readonly string[]
  /** By how many days from today. The longer ones first: one may hold another. */
  days: readonly (readonly [words: string, days: number])[]
  /** Sunday first, as the calendar counts. */
  weekdays: readonly string[]
  /** Parts of a day, and the hour at which one would keep them. */
  parts: readonly (readonly [words: string, time: string])[]
  /** What stands before an hour. */
  at: readonly string[]
  /** What stands after an hour. */
  oClock: readonly string[]
}

export const REQUEST_WORDS: Record<'en' | 'de' | 'fr' | 'es', RequestWords> = {
  en: {
    call: [
      'call me', 'ring me', 'phone me', 'call us', 'ring us', 'call back', 'ring back', 'give me a call', 'give me a ring', 'give us a call',
      'can you call', 'can you ring', 'could you call', 'could you ring', 'please call', 'please ring',
    ],
    send: ['send me', 'send us', 'send over', 'please send', 'can you send', 'could you send', 'email me', 'mail me'],
    asks: [
      'how much', 'how many', 'how long', 'how do', 'how does', 'how can', 'what is', 'what\'s', 'what time', 'what do', 'what are', 'what about',
      'when is', 'when do', 'when can', 'when will', 'where is', 'where do', 'where can', 'which one', 'which', 'who is', 'why', 'can you', 'can i',
      'can we', 'could you', 'could i', 'could we', 'do you', 'does it', 'are you', 'is it', 'is there', 'will you', 'will it', 'would you', 'may i',
      'should i',
    ],
    not: ['don\'t', 'dont', 'do not', 'no need', 'never', 'stop', 'not call', 'you said you'],
    days: [['day after tomorrow', 2], ['tomorrow', 1], ['today', 0], ['tonight', 0], ['this afternoon', 0], ['this evening', 0]],
    weekdays: ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday'],
    parts: [['afternoon', '14:00'], ['morning', '09:00'], ['noon', '12:00'], ['lunch', '12:00'], ['evening', '18:00'], ['tonight', '18:00']],
    at: ['at', 'around', 'about', 'after', 'by', 'from'],
    oClock: ['o\'clock'],
  },
  de: {
    call: [
      'rufen sie mich', 'ruf mich', 'rufen sie uns', 'ruf uns', 'rufen sie bitte', 'ruf bitte', 'mich anrufen', 'mich zuruckrufen', 'bitte anrufen',
      'um ruckruf', 'bitte um anruf', 'uns anrufen', 'bitte zuruckrufen',
    ],
    send: ['schicken sie', 'schick mir', 'senden sie', 'mir schicken', 'mir senden', 'mir zuschicken', 'mir zusenden', 'schickt mir', 'bitte schicken', 'bitte senden'],
    asks: [
      'wie viel', 'wie viele', 'wie lange', 'wie ist', 'wie kann', 'was ist', 'was kostet', 'wann', 'wo ist', 'wo kann', 'welche', 'welches', 'warum',
      'wieso', 'konnen sie', 'kannst du', 'konnten sie', 'konntest du', 'haben sie', 'hast du', 'gibt es', 'kann ich', 'konnen wir', 'darf ich',
    ],
    not: ['nicht', 'kein', 'keine', 'nie'],
    days: [['ubermorgen', 2], ['morgen', 1], ['heute', 0]],
    weekdays: ['sonntag', 'montag', 'dienstag', 'mittwoch', 'donnerstag', 'freitag', 'samstag'],
    parts: [['vormittag', '09:00'], ['nachmittag', '14:00'], ['morgen fruh', '09:00'], ['mittag', '12:00'], ['abend', '18:00']],
    at: ['um', 'gegen', 'ab', 'nach'],
    oClock: ['uhr'],
  },
  fr: {
    call: [
      'appelez-moi', 'appelez moi', 'rappelez-moi', 'rappelez moi', 'appelle-moi', 'appelle moi', 'rappelle-moi', 'rappelle moi',
      'm\'appeler', 'me rappeler', 'nous appeler', 'nous rappeler', 'rappelez-nous', 'appelez-nous',
    ],
    send: ['envoyez-moi', 'envoyez moi', 'envoie-moi', 'envoie moi', 'm\'envoyer', 'nous envoyer', 'envoyez-nous'],
    asks: [
      'combien', 'c\'est combien', 'comment', 'quand', 'quel est', 'quelle est', 'quels', 'quelles', 'pourquoi', 'est-ce que', 'qu\'est-ce', 'pouvez-vous', 'peux-tu',
      'pourriez-vous', 'avez-vous', 'as-tu', 'puis-je', 'y a-t-il',
    ],
    not: ['pas', 'jamais', 'plus la peine'],
    days: [['apres-demain', 2], ['apres demain', 2], ['demain', 1], ['aujourd\'hui', 0], ['ce soir', 0]],
    weekdays: ['dimanche', 'lundi', 'mardi', 'mercredi', 'jeudi', 'vendredi', 'samedi'],
    parts: [['apres-midi', '14:00'], ['apres midi', '14:00'], ['matin', '09:00'], ['midi', '12:00'], ['soir', '18:00']],
    at: ['a', 'vers', 'apres', 'des'],
    oClock: ['h', 'heures', 'heure'],
  },
  es: {
    call: [
      'llameme', 'llamame', 'llamarme', 'me puede llamar', 'me puedes llamar', 'me podria llamar', 'me podrias llamar', 'llamenos', 'llamarnos',
      'devuelvame la llamada', 'me llama', 'me llamas',
    ],
    send: ['envieme', 'enviame', 'enviarme', 'mandeme', 'mandame', 'mandarme', 'me puede enviar', 'me puedes enviar', 'me puede mandar', 'me puedes mandar'],
    asks: [
      'cuanto cuesta', 'cuanto', 'cuantos', 'cuando es', 'cuando puede', 'donde esta', 'donde', 'cual es', 'quien es', 'por que', 'puede usted',
      'puedes', 'podria', 'podrias', 'tienen', 'tienes', 'me puede', 'me puedes',
    ],
    not: ['no me', 'nunca', 'no hace falta'],
    days: [['pasado manana', 2], ['manana', 1], ['hoy', 0], ['esta tarde', 0], ['esta noche', 0]],
    weekdays: ['domingo', 'lunes', 'martes', 'miercoles', 'jueves', 'viernes', 'sabado'],
    parts: [['por la manana', '09:00'], ['por la tarde', '15:00'], ['tarde', '15:00'], ['mediodia', '12:00'], ['noche', '20:00']],
    at: ['a las', 'a la', 'sobre las', 'despues de las', 'hacia las'],
    oClock: ['horas', 'h'],
  },
}

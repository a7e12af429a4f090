/**
 * What is asked most about something that is offered, in many words for the same (common practice): when and where it is, what it
 * costs, what it pays, how long it takes, what to bring, where to park, and who is writing at all.
 */
export const TOPICS = ['parking', 'pay', 'cost', 'how-long', 'bring', 'when', 'where', 'who'] as const
export type Topic = typeof TOPICS[number]

/** With which words a question is about what, by language, plainly written; whoever misses some adds them here and a line to the test. */
export const TOPIC_WORDS: Record<'en' | 'de' | 'fr' | 'es', Record<Topic, readonly string[]>> = {
  en: {
    'parking': ['park', 'parking', 'car park', 'parking lot'],
    'pay': ['salary', 'wage', 'wages', 'pay rate', 'the rate', 'hourly', 'an hour', 'per hour', 'does it pay', 'is the pay', 'much do you pay'],
    'cost': ['how much', 'cost', 'costs', 'price', 'prices', 'free', 'fee', 'charge', 'charged'],
    'how-long': ['how long', 'how many hours', 'how many days', 'until when', 'till when', 'end time', 'finish'],
    'bring': ['bring', 'need to have with', 'come with'],
    'when': ['when', 'what time', 'which day', 'what day', 'which date', 'what date', 'the date', 'what hour', 'start', 'starts'],
    'where': ['where', 'address', 'location', 'venue', 'which street', 'directions', 'how do i get there', 'how do we get there'],
    'who': ['who is this', 'who\'s this', 'whos this', 'who are you', 'who is it', 'how did you get my number', 'where did you get my number'],
  },
  de: {
    'parking': ['parken', 'parkplatz', 'parkplatze', 'parkhaus'],
    'pay': ['gehalt', 'lohn', 'stundenlohn', 'verdient', 'verdiene', 'bezahlt ihr', 'bezahlen sie'],
    'cost': ['wie viel', 'wieviel', 'kostet', 'kosten', 'preis', 'preise', 'kostenlos', 'gratis', 'gebuhr'],
    'how-long': ['wie lange', 'bis wann', 'wie viele stunden', 'wie viele tage'],
    'bring': ['mitbringen', 'mitnehmen'],
    'when': ['wann', 'um wie viel uhr', 'welcher tag', 'welchem tag', 'an welchem', 'uhrzeit', 'beginnt', 'fangt'],
    'where': ['wo', 'adresse', 'anschrift', 'welche strasse', 'wie komme ich hin'],
    'who': ['wer ist das', 'wer sind sie', 'wer bist du', 'woher haben sie meine nummer'],
  },
  fr: {
    'parking': ['parking', 'se garer', 'me garer', 'stationner', 'stationnement'],
    'pay': ['salaire', 'paye', 'taux horaire', 'de l\'heure'],
    'cost': ['combien', 'prix', 'coute', 'cout', 'gratuit', 'tarif', 'tarifs'],
    'how-long': ['combien de temps', 'jusqu\'a quand', 'duree', 'combien d\'heures'],
    'bring': ['apporter', 'amener'],
    'when': ['quand', 'a quelle heure', 'quel jour', 'quelle date', 'quelle heure', 'commence'],
    'where': ['ou', 'adresse', 'quel endroit', 'quelle rue', 'lieu'],
    'who': ['qui etes-vous', 'qui etes vous', 'c\'est qui', 'qui est-ce', 'd\'ou avez-vous mon numero'],
  },
  es: {
    'parking': ['aparcar', 'aparcamiento', 'estacionar', 'estacionamiento', 'parking'],
    'pay': ['sueldo', 'salario', 'pagan', 'la hora'],
    'cost': ['cuanto cuesta', 'cuanto vale', 'cuanto es', 'precio', 'precios', 'coste', 'gratis', 'gratuito', 'tarifa'],
    'how-long': ['cuanto dura', 'cuanto tiempo', 'hasta cuando', 'hasta que hora'],
    'bring': ['llevar', 'traer'],
    'when': ['cuando', 'a que hora', 'que dia', 'que fecha', 'empieza'],
    'where': ['donde', 'direccion', 'lugar', 'que calle'],
    'who': ['quien es', 'quien eres', 'de donde tiene mi numero'],
  },
}

import type { Papers } from '../core/papers/papers'

/** What Pannier & Post has written for carriers; it is handed in to none yet. */
export const PAPERS: Papers = {
  firm: 'Pannier & Post Ltd',
  brand: 'Pannier & Post',
  number: 'PP 0042-118',
  address: '4 Swan Quay\nPortland, Oregon',
  country: 'US',
  website: 'https://pannier.example',
  contact: 'Rafe Pennington',
  mail: 'rafe@pannier.example',
  phone: '503-555-0118',
  about: 'We lease cargo bikes and employ riders. We text those who have asked us for a trial week or an offer, those who have applied, and clients about handovers, check-ups and payments.',
  agree: 'On the form for a trial week and on the one for applications there is a box, empty at first: “Text me about this; STOP ends it.” On the telephone we ask, and write the words down.',
  samples: [
    'Hi [first name], Ada from Pannier & Post. Thank you for asking about a trial week. When may I ring you this week?',
    'Hi [first name], Mika from Pannier & Post. See you on [day] at [time], [place]. If that no longer works for you, just text us.',
    'Hi [first name], Noor from Pannier & Post. Your trial shift: [day] at [time], [place]. Bring a rain jacket; the helmet is ours.',
    'Hi [first name], Mika from Pannier & Post. Your bike is ready. You can pick it up at [place] from [time]. STOP ends these texts.',
  ],
}

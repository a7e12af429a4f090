/** Invented people and firms. */
const list = (words: string) => words.trim().split(/\s*,\s*/)

export const FIRST_NAMES = list(`
Alba, Amadou, Anneke, Anselm, Aoife, Arlo, Asha, Aurelio, Beatrix, Benedikt, Bilal, Brona, Calder, Calliope, Caspian, Cecily, Chidi, Clementine, Cosmo, Dagny,
Dario, Delphine, Desta, Dorothea, Eamon, Edda, Eino, Elowen, Emeka, Esme, Ewan, Farida, Felix, Fenna, Finlay, Freya, Gideon, Ginevra, Goran, Greta,
Hana, Hanno, Hester, Hollis, Ibrahim, Idris, Ilse, Imogen, Ines, Isolde, Jabari, Jago, Jonas, Juno, Kaia, Kalani, Keiko, Kestrel, Lachlan, Laila,
Leif, Leonie, Linus, Lorcan, Lucinda, Magnus, Mahalia, Maren, Marisol, Matteo, Merritt, Milo, Nadia, Nell, Niamh, Nikolai, Noa, Octavia, Odalys, Okon,
Orla, Osric, Paloma, Percy, Petra, Philippa, Quill, Quinta, Rafferty, Ramona, Reza, Rowan, Rosalind, Saoirse, Selim, Sidonie, Soren, Sunniva, Tamsin, Tariq,
Tess, Thaddeus, Tindra, Ulla, Umberto, Vesna, Viggo, Wilhelmina, Winslow, Xanthe, Yara, Yusuf, Zadie, Zeno, Zora`)

export const LAST_NAMES = list(`
Abernathy, Achterberg, Adeyinka, Alcott, Amundsen, Arbuckle, Ashdown, Baptiste, Barnaby, Beauchamp, Bergstrom, Birdwhistle, Blackwood, Bramble, Bright, Calloway, Castell, Chukwu, Clegg, Cobbold,
Coventry, Crabtree, Dahlgren, Dankworth, Delacroix, Dorsey, Dunmore, Eckhart, Egerton, Ellery, Fairweather, Farrow, Featherstonehaugh, Ferreira, Finch, Fitzwilliam, Fontaine, Galbraith, Garrick, Goodfellow,
Greenaway, Halvorsen, Hargreave, Hawksworth, Hensley, Hollander, Iversen, Jarrow, Jessop, Kamaka, Keating, Kettleburn, Kimball, Kowalczyk, Lachance, Langstrom, Larkspur, Lindqvist, Lockhart, Loveday,
MacAskill, Maddox, Mallory, Marchbanks, Mbeki, Merriweather, Montague, Nakamura, Nightingale, Norwood, Oakes, Okonjo, Orchard, Osterlund, Pemberton, Penhaligon, Petrov, Pickering, Quigley, Radcliffe,
Ravensdale, Rosewarne, Sandoval, Sayegh, Silverton, Smallwood, Sorensen, Starling, Stanhope, Summerfield, Tanaka, Teague, Thistlewood, Thorncroft, Trevelyan, Underhill, Vance, Villanueva, Wainwright, Weatherby,
Whitcombe, Wilde, Winterbourne, Wolstencroft, Yarrow, Youngblood, Zielinski`)

/** What a company does decides who works there and what they lease. */
export const COMPANIES: { name: string, sector: 'bakery' | 'shop' | 'clinic' | 'courier' }[] = [
  ...list('Rye & Reason Bakery, The Second Loaf, Crumb & Crust, Old Mill Bakehouse, Morning Oven, Salt Ferry Bread, Three Sisters Bakehouse, Harbour Rolls, Knead to Know, Vale & Sons, Butterfield’s, Stone Street Bagels, The Proving Drawer, Goldcrest Bakery').map(name => ({ name, sector: 'bakery' as const })),
  ...list('Fern & Foxglove, Nettle Books, The Paper Heron, Lantern Cheese, Copper Kettle Coffee, Wilder Greens, Tansy Flowers, The Button Drawer, Northlight Records, Ochre Ceramics, Pepperwood Grocer, Marlow Wines, Quince & Co, Low Tide Fish, Thimble & Thread, Blue Door Toys, Juniper Tea House, Small Hours Ice Cream').map(name => ({ name, sector: 'shop' as const })),
  ...list('Alder Street Clinic, Harbourside Physio, Willow Home Care, Bright Eyes Opticians, Kindle Midwives, Fernhill Dental, Stillwater Pharmacy, Northgate Vets, Meadow Home Nursing, Lark Rise Therapy').map(name => ({ name, sector: 'clinic' as const })),
  ...list('Pigeon Parcels, Last Mile Larry’s, Quickstep Couriers, Sparrow Deliveries, Two Wheel Post, Hop & Carry, Blue Satchel, Ferry Street Freight, Round the Corner Couriers, Daybreak Parcels, Thistle Express, Cobble Couriers, Little Wheels, Fetch & Bring, Redwing Logistics, Kite Couriers, Tailwind Parcels').map(name => ({ name, sector: 'courier' as const })),
]

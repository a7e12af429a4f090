/**
 * Conversations as people have them. A line begins with `>` where the other side writes. `{first}` is the
 * person, `{me}` the colleague, `{co}` the company, `{day}` and `{time}` a day and an hour near by.
 */
const thread = (words: string) => words.trim().split('\n').map(line => line.startsWith('>')
  ? { side: 'theirs' as const, words: line.slice(1).trim() }
  : { side: 'ours' as const, words: line.trim() })

export const THREADS = {
  lead: [
    thread(`Hi {first}, {me} from Pannier & Post. You asked about a trial week for {co}. Shall I call you {day} around {time}?
> Yes please, after the morning rush
Perfect, I will ring you {day} then.`),
    thread(`Hi {first}, {me} from Pannier & Post. The long-john you liked is free from {day}. Would you like to try it for a week?
> How much is that after the trial?
$160 a month for one bike, service and insurance in it. Nothing to pay for the trial week.
> Ok let me talk to my partner
Of course. I will ask again on {day}.
> We are in. Where do we sign?`),
    thread(`Hello {first}, {me} here from Pannier & Post. Our mechanic can show your riders the brakes on {day} at {time}. Does that suit you?
> {time} is when the flour comes. An hour later?
An hour later it is.`),
    thread(`Hi {first}, just checking that the offer for {co} arrived. Any questions, write here.
> Got it, thanks. Is the second battery included?
One spare battery for every two bikes. So yes, one.
> Great`),
    thread(`Hi {first}, {me} from Pannier & Post. I tried to ring you. When is a good moment this week?
> Sorry was in the kitchen. {day}?
{day} at {time}, I will call.`),
    thread(`> Hi, is this the bike people? Saw your trike outside the library
Hi {first}, that is us! {me} here. Do you want one for {co}?
> Maybe, we do about 30 deliveries a day on foot
Then two bikes would do. I can bring one by on {day} for you to try.
> Come at {time}, ask for me at the back`),
    thread(`Hi {first}, winter tyres are on all our bikes from November, no charge. Still thinking about the trial?
> Still thinking, the boss wants to wait until spring
No rush. May I write again in March?
> Please do`),
    thread(`Hi {first}, {me} from Pannier & Post. The trial week ends on {day}. How is it going?
> The riders love it. The box is a bit small for the trays
We have the wide box, it takes six trays. Shall I swap it on {day}?
> That would be brilliant`),
    thread(`Hi {first}, here is what you asked for: two long-johns and a trike are $640 a month over 24 months.
> Thanks. Over 36?
$585 a month.
> Let me sleep on it`),
    thread(`Hello {first}, it was good to meet you at the market. Shall I send you an offer for {co}?
> Yes, for three bikes please. Mail is best`),
  ],
  client: [
    thread(`Hi {first}, {me} from Pannier & Post. The yearly check-up for your bikes is due. Would {day} at {time} be all right?
> Fine. One of them squeaks when braking
Noted, the mechanic brings new pads.`),
    thread(`> Morning, one of our bikes won’t start. Number 4
Hi {first}, sorry to hear it. Is the battery light on?
> Red, blinking
Then it is the battery. A new one is on its way, with you by {time}.
> That was fast, thank you!`),
    thread(`Hi {first}, your lease for {co} ends in two months. Shall we talk about the next one on {day}?
> Can we drop one bike? The other shop closed
Of course. I will make a new offer for the smaller fleet.
> Thanks {me}`),
    thread(`Hi {first}, the handover of the new bikes is on {day} at {time}. Please have somebody there with a key to the yard.
> Someone will be in. Do you take the old racks with you?
Yes, we take them.`),
    thread(`Hi {first}, this month’s invoice has not been paid yet. Could you have a look?
> Oh no, it went to the old address. Paying today
No harm done, thank you.`),
    thread(`> Hi {me}, can we get a fifth bike for December?
Gladly. A long-john or a trike?
> Long-john
It can be there on {day}. $160 for the month, is that all right?
> Do it`),
    thread(`Hi {first}, how are the new racks holding up?
> Two of four are loose again
I will send somebody on {day} before 11.
> Mornings are good`),
    thread(`> Rider had a small fall, all fine but the mudguard is bent
Good that nobody is hurt, {first}. We bring a new one on {day}.
> Thank you`),
    thread(`Hi {first}, {me} from Pannier & Post. Snow is forecast for {day}. Shall we fit the spiked tyres early?
> Yes please all of them`),
    thread(`Hello {first}, thank you for three years with us! The next check-up is on the house.
> That is kind, thanks`),
  ],
  candidate: [
    thread(`Hi {first}, {me} from Pannier & Post. Thank you for applying as a rider. Could you come for a trial shift on {day} at {time}?
> Yes! Where do I go?
To the yard behind the office, ask for the workshop. Wear something warm.
> See you there`),
    thread(`Hi {first}, {me} here. Do you have experience with hub motors?
> Two years at a bike kitchen, mostly rear hubs
Just right. Could you come by the workshop on {day}?
> {day} works. Bring tools?
Only if you like your own.`),
    thread(`Hi {first}, the trial shift went very well. We would like to offer you 24 hours a week. Shall I call you?
> Wow thanks! Call any time after {time}
Talk to you then.`),
    thread(`Hi {first}, a small reminder of your trial shift on {day} at {time}.
> Thanks. Can I bring my own helmet?
Please do.`),
    thread(`> Hello, is the job as a mechanic still open?
Hi {first}, it is. Could you send me a few words about what you have done so far?
> Will do tonight. Is part time ok?
Yes, from 20 hours a week.`),
    thread(`Hi {first}, {me} from Pannier & Post. Are you still looking for work as a rider? A courier in your part of town needs two people.
> I found something, but thanks for thinking of me
Glad to hear it. All the best!`),
    thread(`Hi {first}, could you send me a photo of your licence before {day}?
> Sent it by mail just now
Got it, thank you.`),
    thread(`Hi {first}, sorry that I missed your call. What can I do for you?
> I am running late for the shift, tram is stuck
No problem, come when you can. I will tell them.`),
  ],
}

export const NOTES = {
  lead: ['Wants to start small: one bike, then see. Landlord must agree to the charging point.', 'Met at the market. Delivers to offices until noon, so call after 1.', 'Partner decides about money, ask for both on the call.', 'Has had a bad time with a cheap trike; show the brakes first.'],
  client: ['Key to the yard is with the neighbour at no. 12.', 'Prefers mornings. Do not ring between 11 and 2.', 'Two racks were loose at the last check; look at them again.', 'Very happy with the mechanic who came. Ask for a few words for the website.'],
  candidate: ['Calm on the phone, knows the hills. Try for the early shift.', 'Needs two weeks’ notice at the current job.', 'Strong with hub motors, has never done hydraulic brakes.', 'Would rather not work on Sundays.'],
}

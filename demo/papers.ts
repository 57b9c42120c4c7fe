/** The demo firm's own papers, written for it. Samples, not legal advice. */
import { PaperWriter } from './layout';

/** Returns a listing agreement of about six pages. */
export async function listingAgreement(address: string): Promise<Uint8Array> {
  const w = await PaperWriter.begin('Listing agreement', 'Seller’s initials', 1.66);
  w.head('Listing agreement', `${address}, Tern Lock`);
  w.section('1. Who agrees with whom');
  w.clause(
    'This agreement is between the owners named at its end, called the sellers, and Towpath & Vane Realty, called the broker. The sellers ask the broker to find a buyer for the property at the address above, and the broker takes on that work under the terms that follow.',
  );
  w.clause(
    'Where this paper says “the property” it means the house, the land it stands on, the mooring where there is one, and everything that is fixed to them, unless section 3 leaves it out.',
  );
  w.blank('Price asked');
  w.blank('From (date)');
  w.blank('Until (date)');
  w.section('2. What the broker does');
  w.clause(
    'The broker describes the property truthfully, shows it to people who may want to buy it, and brings every written offer to the sellers without delay, whether or not it seems a good one.',
  );
  w.clause(
    'The broker keeps a list of those who have seen the property and gives it to the sellers whenever they ask, and at the latest within five days after this agreement has ended.',
  );
  w.clause(
    'The broker may work with brokers who act for buyers, and tells the sellers beforehand how such a broker is paid.',
  );
  w.clause('The broker holds no key longer than this agreement lasts, and signs for every key that is handed over.');
  w.section('3. What goes with the property');
  w.clause(
    'Stoves, lamps that are wired in, shutters, built-in shelves, rain barrels, garden sheds and the landing stage go with the property. Furniture, boats, tools and plants in pots do not.',
  );
  w.blank('Left out of the sale');
  w.blank('Added to the sale');
  w.section('4. What the sellers do');
  w.clause(
    'The sellers answer the questions of the disclosure form to the best of their knowledge and tell the broker at once when an answer changes. They keep the property fit to be shown and insured until it is handed over.',
  );
  w.clause(
    'The sellers send everyone who asks about the property to the broker, so that nobody is promised anything twice.',
  );
  w.clause(
    'The sellers say that they alone own the property, or that all who own it with them sign this paper too. A trustee or guardian signs with the word that says so.',
  );
  w.clause(
    'If a seller gets to know of a claim, a lien, a boundary question or a notice from the canal board, the seller tells the broker within two business days.',
  );
  w.section('5. What the broker is paid');
  w.clause(
    'The fee named below is earned when a buyer who was found while this agreement lasted has bought the property, and it is paid out of the price on the day of the hand-over. Nothing is owed if no sale comes about, except in the case of section 8.',
  );
  w.blank('Fee, in percent of the price');
  w.blank('Of it to a buyer’s broker');
  w.clause('The fee is not set by law or by any board. The sellers and the broker have agreed on it freely.');
  w.section('6. Showing the property');
  w.clause(
    'Showings are agreed a day ahead, except when the sellers say otherwise. The broker is present at every showing, sees to it that doors and locks are shut afterwards, and leaves a card.',
  );
  w.clause(
    'The broker may put a board on the fence and pictures of the property where buyers look for houses. Pictures of rooms are taken only when the sellers have seen that nothing private is in them.',
  );
  w.clause('A lock box is used only if the sellers initial this page beside this sentence.');
  w.section('7. Offers and money held');
  w.clause(
    'An offer is accepted only in writing and only by all sellers. Money that a buyer pays beforehand goes to the escrow holder named in the offer and never to the broker.',
  );
  w.clause(
    'If two offers come in on the same day the broker shows both to the sellers at the same time and does not tell one buyer what the other has bid, unless all sellers wish it so in writing.',
  );
  w.section('8. Ending this agreement');
  w.clause(
    'Either side may end this agreement with ten days’ notice in writing. If the property is sold within sixty days after the end to somebody on the broker’s list of section 2, the fee is owed as if the agreement still lasted.',
  );
  w.clause(
    'The death of one seller does not end this agreement for the others. It binds those who follow them as far as the law says so.',
  );
  w.section('9. Fair dealing');
  w.clause(
    'The property is offered to everybody alike. Neither the sellers nor the broker will turn a buyer away, or treat a buyer worse, for a reason that the law forbids.',
  );
  w.clause(
    'Who acts for whom is told in the agency disclosure, which every party gets and signs before an offer is written.',
  );
  w.section('10. If there is a quarrel');
  w.clause(
    'The sellers and the broker first try to settle a quarrel with the help of the town’s mediator in Tern Lock, and share that cost evenly. Only then does either side go to court.',
  );
  w.clause(
    'Notices go to the addresses given below, by hand, by post or by email, and count from the day they arrive.',
  );
  w.section('11. Papers that belong to this one');
  w.clause(
    'The seller’s property disclosure and the agency disclosure are part of this agreement. A change of this agreement counts only when it is written, and when everyone who signed has put initials beside it.',
  );
  w.clause(
    'Each party has got a copy of every page. A copy that was signed electronically and sealed counts as the original.',
  );
  w.keep(290).section('12. Signatures');
  w.clause(
    'By signing below each party says that the party has read all pages, has initialled each of them, and agrees.',
  );
  w.signature('Seller 1');
  w.signature('Seller 2');
  w.signature('Listing broker, for Towpath & Vane Realty');
  return w.finish();
}

const ROOMS: [string, string[]][] = [
  [
    '1. Owners and use',
    [
      'Do the sellers live in the property now?',
      'Has anybody else a right to live in it or to cross it?',
      'Is there a tenant, a lodger or a berth holder?',
      'Do all owners sign this form?',
      'Has the property stood empty for more than three months in the last two years?',
    ],
  ],
  [
    '2. Ground and water',
    [
      'Has the cellar, the yard or the ground floor been under water in the last ten years?',
      'Is the property in a part of town that the canal board lists as low-lying?',
      'Is there a retaining wall, a quay or a dam, and has it moved or cracked?',
      'Are there old tanks, wells or pits on the land, filled in or not?',
      'Is the boundary marked, and do the neighbours agree with the marks?',
      'Has soil been brought in or taken away?',
      'Do trees of a neighbour stand within three yards of the walls?',
    ],
  ],
  [
    '3. Roof and walls',
    [
      'Has the roof leaked in the last five years?',
      'Was the roof made new in the last fifteen years?',
      'Are there cracks in the walls that came back after they were filled?',
      'Has a chimney been taken down inside while it still stands above?',
      'Is there damp in a wall, a floor or a ceiling?',
      'Were the windows changed, and was it with a permit where one is asked for?',
    ],
  ],
  [
    '4. Water, drains and heat',
    [
      'Does the property have its own well?',
      'Does it have its own septic tank?',
      'The tank was last emptied in 2019. Has it been emptied since?',
      'Have pipes frozen or burst?',
      'Is any pipe made of lead?',
      'Is the boiler older than twelve years?',
      'Do all rooms have heat?',
    ],
  ],
  [
    '5. Power and safety',
    [
      'Was the wiring made new in the last thirty years?',
      'Is there a room without an earthed socket?',
      'Are there smoke alarms on every floor?',
      'Are there alarms for carbon monoxide where something burns?',
      'Are there solar panels, and do they belong to somebody else?',
    ],
  ],
  [
    '6. Things that were built or changed',
    [
      'Were rooms added, joined or divided since it was bought?',
      'Was there a permit for each of these works?',
      'Was each of them looked at and signed off by the town?',
      'Is there work that was begun and not finished?',
    ],
  ],
  [
    '7. Materials',
    [
      'Was the house built before 1978?',
      'Do the sellers know of lead paint?',
      'Do the sellers know of asbestos in pipes, floors or roof?',
      'Has the air been tested for radon, and was it above the advised level?',
      'Was the property treated against beetles, ants or dry rot?',
    ],
  ],
  [
    '8. Claims and neighbours',
    [
      'Is there a lawsuit, a lien or an unpaid bill that hangs on the property?',
      'Has the insurer paid for damage in the last seven years?',
      'Are there shared drives, walls, wells or landing stages?',
      'Is there an owners’ association, and does it ask for dues?',
      'Is something planned nearby, by the town or by a neighbour, that a buyer would want to know?',
    ],
  ],
];

/** Returns a seller's disclosure of about five pages. */
export async function sellersDisclosure(address: string): Promise<Uint8Array> {
  const w = await PaperWriter.begin('Seller’s property disclosure', 'Seller’s initials', 1.22);
  w.head('Seller’s property disclosure', `${address}, Tern Lock`);
  w.clause(
    'The sellers fill in this form to the best of their knowledge. It is no warranty and takes the place of no inspection. “Unknown” is an honest answer when it is true.',
  );
  for (const [title, questions] of ROOMS) {
    w.section(title);
    for (const q of questions) w.question(q);
    w.blank('More about these answers');
  }
  w.keep(340).section('9. Signatures');
  w.clause(
    'The sellers have answered truthfully and will tell the broker when an answer changes before the hand-over. The buyers have got this form and had time to read it.',
  );
  w.signature('Seller 1');
  w.signature('Seller 2');
  w.signature('Buyer 1');
  w.signature('Buyer 2');
  return w.finish();
}

/** Returns an agency disclosure of two pages. */
export async function agencyDisclosure(): Promise<Uint8Array> {
  const w = await PaperWriter.begin('Agency disclosure', null, 0.86);
  w.head('Who acts for whom', 'Agency disclosure of Towpath & Vane Realty');
  w.section('What this paper is');
  w.clause(
    'A broker can act for the seller or landlord, for the buyer or tenant, or, when all agree in writing, for both. Before you share anything that you would not tell the other side you should know for whom the broker acts. This paper says so. It is not a contract, and signing it binds you to nothing.',
  );
  w.section('The broker of a seller or landlord');
  w.clause(
    'This broker owes the seller or landlord loyalty, care, obedience to lawful wishes, an account of all money, and silence about what was told in confidence. Towards a buyer or tenant the broker must be honest and must tell what is known to be wrong with the property.',
  );
  w.section('The broker of a buyer or tenant');
  w.clause(
    'This broker owes the same duties to the buyer or tenant: finds what suits, tells what is known, bargains for a good price, and keeps silent about what was told in confidence. Towards the seller or landlord the broker must be honest.',
  );
  w.section('One firm for both sides');
  w.clause(
    'When one firm acts for both sides it may not help one of them against the other. It does not tell what price one would take or the other would pay. Both sides must have agreed to this in writing, and either may say no.',
  );
  w.section('What every broker owes everyone');
  w.clause(
    'Fair treatment, honest answers, care with keys and papers, and no discrimination that the law forbids. A broker who does not know an answer says so and tells where it may be found.',
  );
  w.clause('You may ask at any time for whom a broker acts, and you may ask for it in writing.');
  w.section('In this deal');
  w.clause('Towpath & Vane Realty acts for the side that is ticked here, through the agent who signs below.');
  w.question('For the seller or landlord');
  w.question('For the buyer or tenant');
  w.question('For both, as agreed in writing');
  w.section('What you have got');
  w.clause(
    'You have got this paper before you signed anything else, you had time to read it, and you could ask what you did not understand. You keep a copy.',
  );
  w.clause('If you do not want to sign, the broker may note here that you were given the paper and on which day.');
  w.blank('Note of the broker');
  w.keep(330).section('Signatures');
  w.signature('Seller or landlord');
  w.signature('Seller or landlord');
  w.signature('Buyer or tenant');
  w.signature('Buyer or tenant');
  w.signature('Agent of Towpath & Vane Realty');
  return w.finish();
}

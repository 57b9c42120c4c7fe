/** Forms set by a library that the reader's rules were written on. Invented papers of the demo world. */
import { by, link, us } from '../blank';
import type { FormSource } from '../types';

export const libraryForms: FormSource[] = [
  {
    name: 'notice-library',
    how: 'library',
    body: [
      { text: 'Notice of showing', fontSize: 18, bold: true },
      { canvas: [{ type: 'line', x1: 0, y1: 4, x2: 515, y2: 4, lineWidth: 1 }], margin: [0, 0, 0, 10] },
      { text: ['To the tenant of ', us(30, 'text')] },
      {
        text: [
          'The manager will show the dwelling on ',
          us(14, 'date'),
          ' between ',
          us(8, 'text'),
          ' and ',
          us(8, 'text'),
          '.',
        ],
        margin: [0, 8],
      },
      { text: ['Name: ', us(30, 'name', 'manager', 1)], margin: [0, 6] },
      {
        text: ['By: ', us(34, 'signature', 'manager', 1), '   Date: ', us(14, 'date', 'manager', 1)],
        margin: [0, 14, 0, 0],
      },
      { text: 'Property manager', fontSize: 9, margin: [22, 2] },
      {
        text: [
          'I have got this notice. Tenant’s signature: ',
          us(26, 'signature', 'tenant', 1),
          ' Date: ',
          us(12, 'date', 'tenant', 1),
        ],
        margin: [0, 20],
      },
      {
        text: ['Initials ', us(6, 'initials', 'tenant', 1), ' / ', us(6, 'initials', 'tenant', 2), '   tenants'],
        margin: [0, 8],
      },
    ],
  },
  {
    name: 'addendum-library',
    how: 'library',
    body: [
      { text: 'ADDENDUM', fontSize: 18, bold: true, alignment: 'center' },
      { text: ['Addendum no. ', us(6, 'text'), ' to the agreement dated ', us(14, 'date')], margin: [0, 8] },
      { text: 'The parties change the agreement as follows:', margin: [0, 4] },
      { text: us(80, 'text'), margin: [0, 6] },
      { text: us(80, 'text'), margin: [0, 6] },
      { text: 'The initial payment stays as it was. Everything else stays as it was.', margin: [0, 6] },
      {
        columns: [
          [
            { text: 'SELLER', bold: true },
            { text: us(32, 'signature', 'seller', 1), margin: [0, 18, 0, 0] },
            { text: 'Signature', fontSize: 8 },
            { text: us(32, 'name', 'seller', 1), margin: [0, 10, 0, 0] },
            { text: 'Printed name', fontSize: 8 },
            { text: ['Date ', us(14, 'date', 'seller', 1)], margin: [0, 10] },
          ],
          [
            { text: 'BUYER', bold: true },
            { text: us(32, 'signature', 'buyer', 1), margin: [0, 18, 0, 0] },
            { text: 'Signature', fontSize: 8 },
            { text: us(32, 'name', 'buyer', 1), margin: [0, 10, 0, 0] },
            { text: 'Printed name', fontSize: 8 },
            { text: ['Date ', us(14, 'date', 'buyer', 1)], margin: [0, 10] },
          ],
        ],
        margin: [0, 20],
      },
    ],
  },
  {
    name: 'guaranty-library',
    how: 'library',
    more: [
      { page: 1, kind: 'signature', role: 'guarantor', ordinal: 1, rect: [50, 177, 254, 24] },
      { page: 1, kind: 'date', role: 'guarantor', ordinal: 1, rect: [308, 177, 254, 24] },
    ],
    body: [
      { text: 'Guaranty of a lease', fontSize: 17, bold: true },
      {
        text: [
          'The guarantor, ',
          us(28, 'name', 'guarantor', 1),
          ', answers for the rent of the dwelling at ',
          us(26, 'text'),
          '.',
        ],
        margin: [0, 8],
      },
      { text: ['Date of birth: ', us(14, 'date'), '  Telephone: ', us(16, 'text')], margin: [0, 6] },
      {
        table: {
          widths: ['*', '*'],
          body: [
            [
              [
                { text: 'Guarantor’s signature', fontSize: 9 },
                { text: ' ', fontSize: 18 },
              ],
              [
                { text: 'Date', fontSize: 9 },
                { text: ' ', fontSize: 18 },
              ],
            ],
          ],
        },
        margin: [0, 14],
      },
      {
        text: [
          'Landlord’s agent: ',
          us(30, 'signature', 'broker', 1),
          '  Date: ',
          link('____/____/______', 'date', 'broker', 1),
        ],
        margin: [0, 14],
      },
      {
        text: [
          'Tenant 1 initials: ',
          us(7, 'initials', 'tenant', 1),
          '    Tenant 2 initials: ',
          us(7, 'initials', 'tenant', 2),
        ],
        margin: [0, 8],
      },
    ],
  },
  {
    name: 'repair-library',
    how: 'library',
    more: [257, 289, 321].flatMap((y, i) => [
      by(1, 'signature', i < 2 ? 'buyer' : 'seller', i < 2 ? i + 1 : 1, [208, y, 236, 29]),
      by(1, 'date', i < 2 ? 'buyer' : 'seller', i < 2 ? i + 1 : 1, [445, y, 118, 29]),
    ]),
    body: [
      { text: 'Request for repairs', fontSize: 18, bold: true },
      { canvas: [{ type: 'line', x1: 0, y1: 2, x2: 515, y2: 2, lineWidth: 0.7 }] },
      { text: ['Property: ', us(50, 'text')], margin: [0, 10] },
      { text: ['The buyer asks the seller to mend the following until ', us(14, 'date'), ':'], margin: [0, 4] },
      { text: us(84, 'text'), margin: [0, 6] },
      { text: us(84, 'text'), margin: [0, 6] },
      {
        text: [
          '[',
          link('\u00a0\u00a0\u00a0', 'checkbox'),
          '] The seller agrees.   [',
          link('\u00a0\u00a0\u00a0', 'checkbox'),
          '] The seller does not agree.',
        ],
        margin: [0, 8],
      },
      {
        table: {
          widths: [150, '*', 110],
          body: [
            ['Name', 'Signature', 'Date'],
            ...[
              ['Buyer 1', 'buyer', 1] as const,
              ['Buyer 2', 'buyer', 2] as const,
              ['Seller', 'seller', 1] as const,
            ].map(([who]) => [{ text: who, margin: [0, 6] }, '', '']),
          ],
        },
        margin: [0, 16],
      },
      {
        text: [
          'Initials: Buyer ',
          us(6, 'initials', 'buyer', 1),
          ' Buyer ',
          us(6, 'initials', 'buyer', 2),
          ' Seller ',
          us(6, 'initials', 'seller', 1),
        ],
        margin: [0, 8],
      },
    ],
  },
  {
    name: 'manager-library',
    how: 'library',
    more: [
      by(1, 'signature', 'manager', 1, [48, 175, 200, 24]),
      by(1, 'signature', 'landlord', 1, [306, 175, 200, 24]),
    ],
    body: [
      { text: 'Management of a dwelling', fontSize: 18, bold: true },
      {
        text: ['Owner: ', us(34, 'name', 'landlord', 1), ' (the landlord) rents to tenants through the manager.'],
        margin: [0, 8],
      },
      {
        text: [
          'The manager is paid ',
          us(6, 'text'),
          ' % of the rent. The lease of a tenant begins on ',
          us(12, 'date'),
          '.',
        ],
        margin: [0, 6],
      },
      {
        columns: [
          [
            { text: 'Property manager', bold: true },
            { canvas: [{ type: 'line', x1: 0, y1: 34, x2: 200, y2: 34, lineWidth: 0.7 }] },
            { text: 'Signature', fontSize: 8 },
          ],
          [
            { text: 'Landlord', bold: true },
            { canvas: [{ type: 'line', x1: 0, y1: 34, x2: 200, y2: 34, lineWidth: 0.7 }] },
            { text: 'Signature', fontSize: 8 },
          ],
        ],
        margin: [0, 18],
      },
      {
        text: ['Guarantor signs here: ', us(30, 'signature', 'guarantor', 1), ' Date ', us(12, 'date', 'guarantor', 1)],
        margin: [0, 12],
      },
      {
        text: ['Printed name of guarantor ', us(26, 'name', 'guarantor', 1), ' Tel. ', us(14, 'text')],
        margin: [0, 8],
      },
    ],
  },
  {
    name: 'lead-library',
    how: 'library',
    body: [
      { text: 'LEAD PAINT: NOTICE AND ACKNOWLEDGMENT', fontSize: 15, bold: true },
      { text: '--------------------------------------------------------------------------', margin: [0, 2] },
      { text: 'Seller’s disclosure (initial each line)', bold: true, margin: [0, 8] },
      { text: [us(6, 'initials', 'seller', 1), ' (a) Seller knows of no lead paint.'], margin: [0, 4] },
      { text: [us(6, 'initials', 'seller', 1), ' (b) Seller has no reports.'], margin: [0, 4] },
      { text: 'Purchaser’s acknowledgment (initial each line)', bold: true, margin: [0, 8] },
      { text: [us(6, 'initials', 'buyer', 1), ' (c) Purchaser has got copies of all reports.'], margin: [0, 4] },
      { text: [us(6, 'initials', 'buyer', 1), ' (d) Purchaser has got the pamphlet.'], margin: [0, 4] },
      { text: 'Agent’s acknowledgment (initial)', bold: true, margin: [0, 8] },
      { text: [us(6, 'initials', 'broker', 1), ' (e) Agent has told the seller what must be done.'], margin: [0, 4] },
      {
        columns: [
          [
            { text: us(30, 'signature', 'seller', 1), margin: [0, 22, 0, 0] },
            { text: 'Seller' },
            { text: us(30, 'signature', 'buyer', 1), margin: [0, 22, 0, 0] },
            { text: 'Purchaser' },
            { text: us(30, 'signature', 'broker', 1), margin: [0, 22, 0, 0] },
            { text: 'Agent' },
          ],
          [
            { text: us(16, 'date', 'seller', 1), margin: [0, 22, 0, 0] },
            { text: 'Date' },
            { text: us(16, 'date', 'buyer', 1), margin: [0, 22, 0, 0] },
            { text: 'Date' },
            { text: us(16, 'date', 'broker', 1), margin: [0, 22, 0, 0] },
            { text: 'Date' },
          ],
        ],
      },
    ],
  },
  {
    name: 'rider-library',
    how: 'library',
    body: [
      { text: 'Rider on boats', fontSize: 18, bold: true },
      { text: ['Berth no. ', us(8, 'text'), '   Name of the boat: ', us(22, 'text')], margin: [0, 8] },
      { text: ['Length ', us(6, 'text'), ' ft   Year built ', us(6, 'text')], margin: [0, 4] },
      {
        text: [
          'The tenant pays $ ',
          us(8, 'text'),
          ' a month from the ',
          us(4, 'date'),
          ' day of ',
          us(12, 'date'),
          ', 20',
          us(3, 'date'),
          ' on.',
        ],
        margin: [0, 4],
      },
      { text: 'ACCEPTED', bold: true, margin: [0, 12] },
      { text: ['Tenant ', us(32, 'signature', 'tenant', 1), '  Date ', us(12, 'date', 'tenant', 1)], margin: [0, 10] },
      { text: ['Tenant ', us(32, 'signature', 'tenant', 2), '  Date ', us(12, 'date', 'tenant', 2)], margin: [0, 10] },
      {
        text: ['Guarantor ', us(30, 'signature', 'guarantor', 1), '  Date ', us(12, 'date', 'guarantor', 1)],
        margin: [0, 10],
      },
      {
        text: ['Landlord ', us(30, 'signature', 'landlord', 1), '  Date ', us(12, 'date', 'landlord', 1)],
        margin: [0, 10],
      },
      {
        text: ['Initials of tenants: ', us(6, 'initials', 'tenant', 1), ', ', us(6, 'initials', 'tenant', 2)],
        margin: [0, 10],
      },
    ],
  },
  {
    name: 'extension-library',
    how: 'library',
    body: [
      { text: 'Extension of a listing', fontSize: 17, bold: true },
      { canvas: [{ type: 'line', x1: 0, y1: 3, x2: 515, y2: 3, lineWidth: 0.6 }] },
      { text: ['The listing agreement dated ', us(14, 'date'), ' now ends on ', us(14, 'date'), '.'], margin: [0, 10] },
      { text: ['Price: $', us(14, 'text'), '     Fee: ', us(5, 'text'), ' %'], margin: [0, 6] },
      { text: 'Owner', bold: true, margin: [0, 12, 0, 0] },
      {
        text: ['Signature ', us(34, 'signature', 'seller', 1), '  Date ', us(12, 'date', 'seller', 1)],
        margin: [0, 10],
      },
      { text: 'Co-owner', bold: true, margin: [0, 6, 0, 0] },
      {
        text: ['Signature ', us(34, 'signature', 'seller', 2), '  Date ', us(12, 'date', 'seller', 2)],
        margin: [0, 10],
      },
      { text: 'Listing broker', bold: true, margin: [0, 6, 0, 0] },
      { text: ['By: ', us(38, 'signature', 'broker', 1), '  Date ', us(12, 'date', 'broker', 1)], margin: [0, 10] },
      {
        text: ['Owner’s initials ', us(6, 'initials', 'seller', 1), ' ', us(6, 'initials', 'seller', 2)],
        margin: [0, 10],
      },
    ],
  },
  {
    name: 'rent-library',
    how: 'library',
    body: [
      { text: 'NOTICE OF A NEW RENT', fontSize: 16, bold: true, alignment: 'center' },
      { text: '==========================================', alignment: 'center' },
      { text: ['To: ', us(32, 'name', 'tenant', 1), ' (tenant)'], margin: [0, 10] },
      { text: ['From ', us(14, 'date'), ' on the rent is $', us(10, 'text'), ' a month.'], margin: [0, 4] },
      {
        text: ['Given on this ', us(4, 'date'), ' day of ', us(12, 'date'), ', 20', us(3, 'date'), ' by'],
        margin: [0, 4],
      },
      { text: us(36, 'signature', 'manager', 1), margin: [0, 24, 0, 0] },
      { text: 'Property manager', fontSize: 9 },
      {
        text: ['Tenant 1: ', us(30, 'signature', 'tenant', 1), '  Dated: ', us(12, 'date', 'tenant', 1)],
        margin: [0, 16, 0, 0],
      },
      {
        text: ['Tenant 2: ', us(30, 'signature', 'tenant', 2), '  Dated: ', us(12, 'date', 'tenant', 2)],
        margin: [0, 10],
      },
      {
        text: ['( ', us(5, 'initials', 'tenant', 1), ' ) ( ', us(5, 'initials', 'tenant', 2), ' ) Tenants’ initials'],
        margin: [0, 8],
      },
    ],
  },
];

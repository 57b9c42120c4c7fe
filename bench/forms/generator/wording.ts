/** The words generated forms are made of, in English and Spanish. All of it is made up. */
import type { PLACE_ROLES } from '@gatepath/core/reading';

export type Language = 'en' | 'es';
export type Role = Exclude<(typeof PLACE_ROLES)[number], 'unknown'>;

/** What a role is called: in the singular and plural. */
export const ROLE_NAMES: Record<Language, Record<Role, readonly (readonly [string, string])[]>> = {
  en: {
    seller: [
      ['Seller', 'Sellers'],
      ['Seller', 'Sellers'],
      ['Seller', 'Sellers'],
      ['Transferor', 'Transferors'],
      ['Vendor', 'Vendors'],
      ['Owner', 'Owners'],
    ],
    buyer: [
      ['Buyer', 'Buyers'],
      ['Buyer', 'Buyers'],
      ['Buyer', 'Buyers'],
      ['Transferee', 'Transferees'],
      ['Purchaser', 'Purchasers'],
    ],
    landlord: [
      ['Landlord', 'Landlords'],
      ['Lessor', 'Lessors'],
      ['Owner', 'Owners'],
    ],
    tenant: [
      ['Tenant', 'Tenants'],
      ['Tenant', 'Tenants'],
      ['Applicant', 'Applicants'],
      ['Lessee', 'Lessees'],
      ['Resident', 'Residents'],
      ['Renter', 'Renters'],
    ],
    guarantor: [
      ['Guarantor', 'Guarantors'],
      ['Co-signer', 'Co-signers'],
    ],
    broker: [
      ['Listing broker', 'Listing brokers'],
      ['Seller’s broker', 'Seller’s brokers'],
      ['Listing agent', 'Listing agents'],
    ],
    buyer_broker: [
      ['Buyer’s broker', 'Buyer’s brokers'],
      ['Buyer’s agent', 'Buyer’s agents'],
      ['Selling broker', 'Selling brokers'],
    ],
    manager: [
      ['Property manager', 'Property managers'],
      ['Manager', 'Managers'],
    ],
  },
  es: {
    seller: [
      ['Vendedor', 'Vendedores'],
      ['El vendedor', 'Los vendedores'],
      ['La vendedora', 'Las vendedoras'],
    ],
    buyer: [
      ['Comprador', 'Compradores'],
      ['El comprador', 'Los compradores'],
      ['La compradora', 'Las compradoras'],
    ],
    landlord: [
      ['Arrendador', 'Arrendadores'],
      ['Propietario', 'Propietarios'],
    ],
    tenant: [
      ['Arrendatario', 'Arrendatarios'],
      ['Inquilino', 'Inquilinos'],
    ],
    guarantor: [['Fiador', 'Fiadores']],
    broker: [['Corredor del vendedor', 'Corredores']],
    buyer_broker: [['Corredor del comprador', 'Corredores']],
    manager: [['Administrador', 'Administradores']],
  },
};

/** Words that ask for a kind of place. */
export const KIND_WORDS: Record<Language, Record<'signature' | 'initials' | 'date' | 'name', readonly string[]>> = {
  en: {
    signature: ['Signature', 'Signature', 'Signed', 'Sign here', 'Sign', 'Authorized signature'],
    initials: ['Initials', 'Initials', 'Initial', 'Init.', 'Initial here'],
    date: ['Date', 'Date', 'Date', 'Dated', 'Date signed', 'Date of signing'],
    name: [
      'Print name',
      'Printed name',
      'Name',
      'Name (print)',
      'Full name',
      'Name printed',
      'Print',
      'Typed or printed name',
      'Legal name',
      'Please print',
    ],
  },
  es: {
    signature: ['Firma', 'Firma', 'Firmado'],
    initials: ['Iniciales'],
    date: ['Fecha', 'Fecha de firma'],
    name: ['Nombre', 'Nombre completo', 'Nombre en letra de imprenta'],
  },
};

/** What else a signer writes beside the signature. */
export const BESIDE: Record<Language, readonly string[]> = {
  en: ['Phone', 'Email', 'Address', 'License no.', 'Time', 'Title', 'Company', 'Telephone', 'Current address'],
  es: ['Teléfono', 'Correo', 'Domicilio', 'Licencia', 'Hora', 'Cargo'],
};

export const ORDINALS: Record<Language, readonly string[]> = {
  en: ['First', 'Second', 'Third', 'Fourth', 'Fifth'],
  es: ['Primer', 'Segundo', 'Tercer', 'Cuarto', 'Quinto'],
};

/** Titles of documents, by the two sides that sign them. */
export const TITLES: Record<Language, { sale: readonly string[]; tenancy: readonly string[] }> = {
  en: {
    sale: [
      'Purchase agreement',
      'Counteroffer',
      'Seller’s disclosure',
      'Addendum',
      'Listing agreement',
      'Inspection response',
      'Lead paint disclosure',
      'Agency disclosure',
      'Extension of closing',
      'Release',
      'Receipt for deposit',
      'Septic disclosure',
      'Water rights addendum',
      'Trust account instructions',
    ],
    tenancy: [
      'Residential lease',
      'Lease renewal',
      'House rules',
      'Pet addendum',
      'Move-in condition',
      'Notice of entry',
      'Guaranty of lease',
      'Rent change',
      'Key receipt',
      'Roommate agreement',
      'Parking addendum',
      'Application to rent',
      'Smoke alarm statement',
    ],
  },
  es: {
    sale: ['Contrato de compraventa', 'Contraoferta', 'Declaración del vendedor', 'Anexo', 'Recibo de depósito'],
    tenancy: [
      'Contrato de arrendamiento',
      'Anexo de mascotas',
      'Reglamento de la casa',
      'Aviso de entrada',
      'Renovación',
    ],
  },
};

/** Sentences of clauses; `%` is where a role is named. */
export const CLAUSES: Record<Language, readonly string[]> = {
  en: [
    'The %A shall keep the premises in good order until the day of closing, wear and tear excepted.',
    'The %B has read the report on the roof and accepts it as it is.',
    'Notices are given in writing and take effect on the second business day after they were sent.',
    'If either party does not perform in time, the other may end this agreement by written notice.',
    'The %A and the %B agree that time is of the essence and that no oral promise changes this paper.',
    'The deposit is held in a trust account and applied to the price when the deed is delivered.',
    'No one shall sign for the %B without a written power, and initials on a page only show that it was read.',
    'Smoke alarms were tested in the presence of the %B, who was shown how to turn off the water.',
    'The signature of the %A binds heirs and successors. Dates are counted in calendar days.',
    'Fixtures attached to the walls remain; the %A may take the freezer and the garden bench along.',
    'The %B may inspect the land records at the county and report what was found within ten days.',
    'Rent that is paid late bears a charge, which is due with the next rent and is no penalty.',
    'The well yields clear water, and the last test found nothing that the county objects to.',
    'A copy of this agreement is as good as the original; it may be signed in several parts.',
  ],
  es: [
    'El %A conservará el inmueble en buen estado hasta la fecha de entrega, salvo el desgaste normal.',
    'El %B ha leído el informe sobre el techo y lo acepta tal como está.',
    'Los avisos se dan por escrito y surten efecto el segundo día hábil después de su envío.',
    'El depósito se guarda en una cuenta fiduciaria y se aplica al precio al entregar la escritura.',
    'Las iniciales en una página solo muestran que fue leída por el %B.',
    'La firma del %A obliga a herederos y sucesores.',
  ],
};

/** Sentences with blanks: `{date}`, `{text}`, `{money}`, `{name:A}`. */
export const FILL_INS: Record<Language, readonly string[]> = {
  en: [
    'The closing takes place on {date} at {text}.',
    'The price is {money}, of which {money} is paid as a deposit.',
    'The property at {text}, county of {text}, parcel number {text}.',
    'This offer ends at {text} on {date} unless it was accepted before.',
    'The term begins on {date} and ends on {date}.',
    'Rent of {money} is due on the {text} day of each month.',
    'The %B shall have {text} days after acceptance to inspect the property.',
    'Other terms: {text}',
    'Built in the year {text}, last renovated in {text}.',
    'Pets allowed: {text} The charge for each is {money} a month.',
    'Keys handed over: {text} for the door and {text} for the mailbox.',
    'Dated {date}, with regard to the agreement of {date}.',
    'The last day of the listing changes to {date}.',
    'The lease of {text} is renewed until {date}.',
    'Interest is {text} percent a year, and the note is due on {date}.',
    'The offer stands until {text} o’clock on {date}.',
    'The %A’s new address is {text}, and the telephone is {text}.',
    'The survey was made by {text} on {date} and shows {text} acres.',
  ],
  es: [
    'El cierre se realiza el {date} en {text}.',
    'El precio es de {money}, del cual {money} se paga como depósito.',
    'El inmueble ubicado en {text}, condado de {text}.',
    'El plazo comienza el {date} y termina el {date}.',
    'La renta de {money} vence el día {text} de cada mes.',
  ],
};

export const TICKS: Record<Language, readonly string[]> = {
  en: [
    'Smoke alarms',
    'The roof was repaired',
    'Dishwasher stays',
    'City water',
    'Oil tank above ground',
    'Cash',
    'Loan',
    'Not applicable',
    'Garage door opener',
    'Storm windows',
    'Carpet cleaned',
    'Furnished',
    'A copy was received',
  ],
  es: ['Detectores de humo', 'Efectivo', 'Préstamo', 'No aplica', 'Amueblado', 'Recibió una copia'],
};

/** Made-up names, for places that are filled and for typed names. */
export const PEOPLE = [
  'Wren Halloway',
  'Odette Marsh',
  'Tobias Fenn',
  'Ines Caldera',
  'Marlow Pike',
  'Nadia Fenwright',
  'Lucan Thorpe',
  'Pilar Quintero',
] as const;
export const FIRMS = [
  'Harrow & Lantern Realty',
  'Quayside Homes LLC',
  'The Fenwright Family Trust',
  'Tollgate Land Company',
] as const;

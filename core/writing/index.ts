/**
 * Forms written in the product: their text, its tags, and what of it stands on the paper of a deal. It knows facts of
 * deals and sides; it must not know how a page is set, or where text is kept.
 */
export * from './types';
export * from './read';
export * from './tags';
export * from './keys';
export * from './compose';
export * from './standing';
export * from './changed';

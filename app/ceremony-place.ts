/** The ceremony, fetched when it is first gone to: by whoever signs, or by a member who goes through a draft. Apart from
 *  the office's places, which it is no part of. */
import { lazy } from 'react';

/** What a person sees who opens a signing link. */
export const Ceremony = lazy(async () => ({ default: (await import('./features/signing/ceremony')).Ceremony }));

/** The same, gone through by a member before anything is sent. */
export const Rehearsed = lazy(async () => ({ default: (await import('./features/signing/ceremony')).Rehearsed }));

/** A person's own page. */
export const OwnPage = lazy(async () => ({ default: (await import('./features/own/own-page')).OwnPage }));

/**
 * Where the pages and pictures of a ceremony are fetched: through the signing link, or from the office during a
 * rehearsal.
 */
import { createContext, useContext } from 'react';
import { urlOf } from '@gatepath/contract/paths';

export interface CeremonyFiles {
  page: (documentId: string, page: number) => string;
  picture: (sha256: string) => string;
}

export const RehearsedFiles = createContext<CeremonyFiles | null>(null);

/** Returns the files of the current ceremony. */
export function useFiles(token: string): CeremonyFiles {
  return (
    useContext(RehearsedFiles) ?? {
      page: (documentId, page) => urlOf('signingPage', { token, documentId, page }),
      picture: (sha256) => urlOf('signingPicture', { token, sha256 }),
    }
  );
}

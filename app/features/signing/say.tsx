/** The client's language: every sentence of the ceremony comes from here. */
import { createContext, useContext, useEffect, type ReactNode } from 'react';
import { useQuery } from '@tanstack/react-query';
import { ENGLISH, say, type WordKey, type WordParams, type Words } from '@gatepath/core/words';
import { keys } from '../../api/keys';
import { call } from '../../api/client';

const Language = createContext<Words>(ENGLISH);

export type Say = (key: WordKey, params?: WordParams) => string;

/** Returns the function for sentences in the reader's language. */
export function useSay(): Say {
  const words = useContext(Language);
  return (key, params) => say(words, key, params);
}

export function useWords(): Words {
  return useContext(Language);
}

/** Queries the words of a language. English is bundled; others are fetched once. */
export function useLanguage(language: string | undefined): Words | null {
  const other = language && language !== 'en' ? language : null;
  const query = useQuery({
    queryKey: keys.words(other),
    queryFn: () => call('words', { params: { language: other! } }),
    enabled: other !== null,
    staleTime: Infinity,
    gcTime: Infinity,
  });
  if (!other) return ENGLISH;
  // English rather than nothing, if the words of a language cannot be loaded.
  return query.data ?? (query.isError ? ENGLISH : null);
}

export function InLanguage({ words, children }: { words: Words; children: ReactNode }) {
  useEffect(() => {
    // Screen readers choose their voice by it.
    document.documentElement.lang = words.language;
    return () => {
      document.documentElement.lang = 'en';
    };
  }, [words.language]);
  return <Language.Provider value={words}>{children}</Language.Provider>;
}

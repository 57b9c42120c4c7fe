/** Acts of the contract as mutations: what their answers show, and which queries are refetched. */
import { useMutation, useQueryClient, type QueryKey } from '@tanstack/react-query';

interface Answers<Input, Answer> {
  /** Where the answer is shown at once: a key, or keys with their values. */
  shows?: QueryKey | ((answer: Answer, input: Input) => readonly (readonly [QueryKey, unknown])[]);
  /** Refetches these in the background. */
  renews?: readonly QueryKey[];
  /** Refetches these and stays pending until they arrive: what was deleted cannot be touched again. */
  waitsFor?: readonly QueryKey[];
  /** Runs once the answer is shown. */
  onDone?: (answer: Answer, input: Input) => void;
  onError?: () => void;
  /** Whether to try again after an error. */
  retry?: (failures: number, error: Error) => boolean;
}

const isKey = (shows: unknown): shows is QueryKey => Array.isArray(shows);

/**
 * Makes a mutation of a call.
 *
 * @example
 * const add = useAct((body: PartyBody) => call('addParty', { params: { dealId }, body }), { shows: keys.deal(dealId) });
 * add.mutate({ name: 'Wren Alder', … });
 */
export function useAct<Input = void, Answer = unknown>(
  act: (input: Input) => Promise<Answer>,
  { shows, renews = [], waitsFor = [], onDone, onError, retry = () => false }: Answers<Input, Answer> = {},
) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: act,
    retry,
    onError,
    onSuccess: async (answer, input) => {
      if (isKey(shows)) client.setQueryData(shows, answer);
      else for (const [key, value] of shows?.(answer, input) ?? []) client.setQueryData(key, value);
      for (const queryKey of renews) void client.invalidateQueries({ queryKey });
      onDone?.(answer, input);
      await Promise.all(waitsFor.map((queryKey) => client.invalidateQueries({ queryKey })));
    },
  });
}

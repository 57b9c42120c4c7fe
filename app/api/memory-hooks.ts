/** Documents seen before, as hooks. */
import { useQuery } from '@tanstack/react-query';
import { useAct } from './act';
import { call } from './client';
import { keys } from './keys';

/**
 * Queries the marks that a document had when it was last sent, placed for the parties of a packet.
 *
 * @param people a key of those parties: when it changes, the marks are queried again
 */
export function useRemembered(packetId: string, documentId: string, people: string) {
  return useQuery({
    queryKey: keys.remembered(packetId, documentId, people),
    queryFn: () => call('remembered', { params: { packetId, documentId } }),
    staleTime: Infinity,
    // An offer that cannot be made is no error of the desk.
    retry: false,
  });
}

/** Stops offering what a document had on it. */
export const useStopOffering = (packetId: string, documentId: string) =>
  useAct(() => call('stopOffering', { params: { packetId, documentId } }), {
    waitsFor: [keys.rememberedOf(packetId)],
  });

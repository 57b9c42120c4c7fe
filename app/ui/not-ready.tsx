/** A whole screen while its data is loading or could not be fetched. */
import { isRefused } from '../api/client';
import { Loading, Page, Trouble } from './pieces';
import { Title } from './text';
import { TEXT } from './words';

/** A query's answer, as far as a screen needs it. */
interface Query<T> {
  data: T | undefined;
  error: Error | null;
  refetch: () => unknown;
}

/**
 * Returns whether there is something to show. Fetched data stays on the screen when the connection is lost, with
 * everything done on it; what the server refuses to show does not.
 */
export function isReady<T>(query: Query<T>): query is Query<T> & { data: T } {
  return query.data !== undefined && !isRefused(query.error);
}

export function NotReady({ query, what }: { query: Query<unknown>; what: string }) {
  return (
    <Page max={560}>
      {query.error ? (
        <>
          <Title>{TEXT.didNotLoad(what[0]!.toUpperCase(), what.slice(1))}</Title>
          <Trouble error={query.error} retry={() => void query.refetch()} />
        </>
      ) : (
        <Loading what={what} level={1} />
      )}
    </Page>
  );
}

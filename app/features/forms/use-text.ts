/** A form's text on this screen: saved on the device at once, and on the server a moment after the last key. */
import { useCallback, useEffect, useRef, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { ShelfItemView } from '@gatepath/contract';
import type { Written } from '@gatepath/core/writing';
import { keys } from '../../api/keys';
import { ApiError, call } from '../../api/client';
import { TEXT } from './words';

/** Milliseconds without a key after which a text is sent. */
const PAUSE = 900;
/** Milliseconds after which it is tried again without a connection. */
const AGAIN = 3_000;

export interface TextHandle {
  text: Written;
  /** Counts texts that came from elsewhere. */
  from: number;
  state: 'saved' | 'saving' | 'offline' | 'refused';
  sentence: string;
  change: (text: Written) => void;
}

interface UnsentText {
  version: number;
  text: Written;
}

const keyOf = (id: string) => `gatepath.text.${id}`;

function savedText(id: string): UnsentText | null {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(id)) ?? 'null') as UnsentText | null;
    return kept?.text.doc ? kept : null;
  } catch {
    return null;
  }
}

function keep(id: string, kept: UnsentText | null): void {
  try {
    if (kept) localStorage.setItem(keyOf(id), JSON.stringify(kept));
    else localStorage.removeItem(keyOf(id));
  } catch {
    // A device without room keeps it in memory only.
  }
}

// eslint-disable-next-line max-lines-per-function -- writing, keeping and sending share what is not sent yet
export function useText(item: ShelfItemView & { written: NonNullable<ShelfItemView['written']> }): TextHandle {
  const client = useQueryClient();
  const { id, written } = item;
  const [left] = useState(() => savedText(id));
  const [text, setText] = useState<Written>(left?.text ?? written.text);
  const [from, setFrom] = useState(0);
  const [told, setTold] = useState<Pick<TextHandle, 'state' | 'sentence'>>({ state: 'saved', sentence: TEXT.saved });
  // Whether the server lacks some of it, and the version it was written on.
  const unsent = useRef<Written | null>(left?.text ?? null);
  const version = useRef(left?.version ?? written.version);
  const sending = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  const send = useCallback(async () => {
    const mine = unsent.current;
    if (!mine || sending.current) return;
    sending.current = true;
    setTold({ state: 'saving', sentence: 'Saving…' });
    try {
      const saved = await call('saveWritten', {
        params: { shelfId: id },
        body: { version: version.current, text: mine },
      });
      version.current = saved.written?.version ?? version.current;
      if (unsent.current === mine) {
        unsent.current = null;
        keep(id, null);
        setTold({ state: 'saved', sentence: TEXT.saved });
      } else keep(id, { version: version.current, text: unsent.current ?? mine });
      client.setQueryData(keys.shelfItem(id), saved);
    } catch (error) {
      const away = !(error instanceof ApiError) || error.status >= 500 || error.status === 401;
      setTold({
        state: away ? 'offline' : 'refused',
        sentence: away ? TEXT.noConnectionYourTextIs : error.message,
      });
      if (away) timer.current = setTimeout(() => void send(), AGAIN);
    } finally {
      sending.current = false;
      if (unsent.current && unsent.current !== mine) void send();
    }
  }, [client, id]);

  const change = useCallback(
    (next: Written) => {
      setText(next);
      unsent.current = next;
      keep(id, { version: version.current, text: next });
      setTold({ state: 'saving', sentence: 'Saving…' });
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void send(), PAUSE);
    },
    [id, send],
  );

  // What an earlier visit left on this device is sent.
  useEffect(() => {
    if (unsent.current) void send();
    return () => {
      clearTimeout(timer.current);
      void send();
    };
  }, [send]);

  // Others' changes are shown, unless one's own are not sent yet.
  useEffect(() => {
    if (unsent.current || sending.current || written.version <= version.current) return;
    version.current = written.version;
    setText(written.text);
    setFrom((n) => n + 1);
  }, [written.version, written.text]);

  // A role that was added or removed changes the paper too.
  const roles = item.draft.parties.map((r) => `${r.id} ${r.name}`).join();
  const seen = useRef(roles);
  useEffect(() => {
    if (seen.current === roles) return;
    seen.current = roles;
    unsent.current ??= text;
    void send();
  }, [roles, text, send]);

  return { text, from, ...told, change };
}

/**
 * News from the server: something that a screen shows has changed. One stream serves the whole application, because
 * browsers hold only a few connections to one server.
 */
import type { Topic } from '@gatepath/contract/limits';
import { useEffect } from 'react';
import { useQueryClient, type QueryKey } from '@tanstack/react-query';
import { urlOf } from '@gatepath/contract/paths';

/** @param seq the end of a packet's log; null if unknown, or if news may have been missed */
type Hear = (seq: number | null) => void;

/** Topics: `deal:…`, `packet:…`, as the server names them. */

/** Pauses after refusals before the stream is opened again, in milliseconds; after the last, never. */
const AGAIN_MS = [10_000, 30_000, 90_000, 270_000];

export class News {
  /** By topic; news may name a topic that nobody here subscribed to. */
  private readonly hearing = new Map<string, Set<Hear>>();
  private source: EventSource | null = null;
  /** Streams that stay open until their replacement is open. */
  private before: EventSource[] = [];
  private served = new Set<string>();
  /** Topics of the last stream that opened. */
  private opened: ReadonlySet<string> = new Set();
  /** Topics of which there was news while no screen listened. */
  private readonly unheard = new Set<string>();
  private soon = false;
  /** Whether no stream was open for a while. */
  private mayHaveMissed = false;
  private refusals = 0;

  constructor(private readonly addressOf: (topics: string[]) => string) {}

  /** Subscribes to a topic. @returns a function that unsubscribes */
  hear(topic: Topic, hear: Hear): () => void {
    const all = this.hearing.get(topic) ?? new Set();
    this.hearing.set(topic, all.add(hear));
    if (!this.served.has(topic)) this.renewSoon();
    // What the screens that open now show may be from before the news.
    else if (this.unheard.delete(topic)) queueMicrotask(() => this.tell(topic, null));
    return () => {
      all.delete(hear);
      if (all.size) return;
      this.hearing.delete(topic);
      // Topics without listeners end with the next stream; the last one closes it.
      if (!this.hearing.size) this.renewSoon();
    };
  }

  /** Opens a new stream after a moment: several screens that open together are one change. */
  private renewSoon(): void {
    if (this.soon || typeof EventSource === 'undefined') return;
    this.soon = true;
    queueMicrotask(() => {
      this.soon = false;
      this.renew();
    });
  }

  private renew(): void {
    const topics = [...this.hearing.keys()];
    if (this.source) this.before.push(this.source);
    this.source = null;
    this.served = new Set(topics);
    // Forgets news of topics that no screen shows any more. A screen that shows one again asks for it when its stream opens.
    for (const topic of this.unheard) if (!this.served.has(topic)) this.unheard.delete(topic);
    if (!topics.length) {
      this.opened = new Set();
      return this.closeBefore();
    }
    const source = new EventSource(this.addressOf(topics));
    this.source = source;
    source.onopen = () => {
      this.closeBefore();
      // News may have been missed while the connection was lost, and news of a new topic before this stream was open.
      const [missed, opened] = [this.mayHaveMissed, this.opened];
      this.mayHaveMissed = false;
      this.opened = new Set(topics);
      for (const topic of [...this.hearing.keys()])
        if (missed || (!opened.has(topic) && this.opened.has(topic))) this.tell(topic, null);
      this.refusals = 0;
    };
    source.onerror = () => {
      if (this.source === source) this.mayHaveMissed = true;
      // Refused, and not only lost: a browser does not come back by itself then.
      if (source.readyState !== EventSource.CLOSED || this.source !== source) return;
      const pause = AGAIN_MS[this.refusals++];
      if (pause !== undefined) setTimeout(() => this.source === source && this.renewSoon(), pause);
    };
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const [topic = '', seq] = data.split(' ');
      if (!this.hearing.has(topic)) this.unheard.add(topic);
      this.tell(topic, seq === undefined ? null : Number(seq));
    };
  }

  private tell(topic: string, seq: number | null): void {
    for (const hear of this.hearing.get(topic) ?? []) hear(seq);
  }

  private closeBefore(): void {
    for (const source of this.before) source.close();
    this.before = [];
  }
}

/** News for members. */
export const officeNews = new News((topics) => `${urlOf('live')}?topics=${encodeURIComponent(topics.join(','))}`);

/** Milliseconds between looks whether an answer is under way, and the pause between two refetches. */
const SOON_MS = 60;
const CALM_MS = 400;
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

/**
 * Refetches `key` whenever there is news of a topic.
 *
 * @param topic  null for none
 * @param isKnown  returns whether the screen already has the log up to a number; then nothing is refetched
 */
export function useLive(
  news: News,
  topic: Topic | null,
  key: QueryKey,
  isKnown?: (seq: number) => boolean | Promise<boolean>,
): void {
  const client = useQueryClient();
  const name = JSON.stringify(key);
  useEffect(() => {
    if (!topic) return;
    const queryKey: QueryKey = JSON.parse(name);
    const turns = { listening: true, running: false, again: false };
    // One after the other: endless news would postpone every answer, its own and that of older items.
    const ask = async () => {
      turns.again = true;
      if (turns.running) return;
      turns.running = true;
      while (turns.again && turns.listening) {
        while (client.isFetching({ queryKey }) && turns.listening) await pause(SOON_MS);
        turns.again = false;
        await client.invalidateQueries({ queryKey });
        if (turns.again) await pause(CALM_MS);
      }
      turns.running = false;
    };
    const stop = news.hear(topic, (seq) => {
      if (!isKnown || seq === null) return void ask();
      void Promise.resolve(isKnown(seq)).then((known) => {
        if (!known) void ask();
      });
    });
    return () => {
      turns.listening = false;
      stop();
    };
  }, [news, topic, name, client, isKnown]);
}

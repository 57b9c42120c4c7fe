import { EventEmitter } from 'node:events';
import type { FastifyReply, FastifyRequest } from 'fastify';

/**
 * Tells open screens that something changed. The message carries no data but the topic: the
 * screen asks again through the ordinary routes, with the ordinary rights.
 */
export class Live {
  private readonly emitter = new EventEmitter().setMaxListeners(0);

  tell(topic: string): void {
    this.emitter.emit(topic);
  }

  /** Serves server-sent events for `topics` until the client goes. */
  serve(request: FastifyRequest, reply: FastifyReply, topics: string[]): void {
    reply.hijack();
    const raw = reply.raw;
    raw.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
      connection: 'keep-alive',
    });
    raw.write('retry: 2000\n\n');
    const send = () => raw.write('data: changed\n\n');
    const beat = setInterval(() => raw.write(': still here\n\n'), 20_000);
    for (const t of topics) this.emitter.on(t, send);
    this.emitter.on('close-all', end);
    const emitter = this.emitter;
    function end(): void {
      clearInterval(beat);
      for (const t of topics) emitter.off(t, send);
      emitter.off('close-all', end);
      raw.end();
    }
    request.raw.on('close', end);
  }

  /** Ends every stream, so that the server can stop. */
  close(): void {
    this.emitter.emit('close-all');
  }
}

/** Topic names, in one place. */
export const topics = {
  packet: (id: string) => `packet:${id}`,
  deal: (id: string) => `deal:${id}`,
  mailroom: () => 'mailroom',
  deals: () => 'deals',
};

import type { FastifyReply } from 'fastify';

/** Sends the picture of a page. It never changes: a document with other pages is another document. */
export function sendPage(reply: FastifyReply, png: Buffer): FastifyReply {
  return reply.type('image/png').header('cache-control', 'private, max-age=604800, immutable').send(png);
}

/** A picture for whoever has a link: a lent browser keeps nothing of it once the link has ended. */
export function sendForVisit(reply: FastifyReply, png: unknown): FastifyReply {
  return reply.type('image/png').header('cache-control', 'private, no-store').send(png);
}

/** A picture of a hand: it has its fingerprint for a name, so it never changes. */
export function sendPng(reply: FastifyReply, body: unknown): FastifyReply {
  return reply.type('image/png').header('cache-control', 'private, max-age=604800, immutable').send(body);
}

/** Sends a PDF that is in memory, under a name. */
export function sendPdfBytes(reply: FastifyReply, bytes: Uint8Array, name: string): FastifyReply {
  return sendPdf(reply, Buffer.from(bytes), name);
}

/** Sends a PDF, under a name that ends in `.pdf`. */
export function sendPdf(reply: FastifyReply, body: unknown, name: string): FastifyReply {
  const file = name.toLowerCase().endsWith('.pdf') ? name : `${name}.pdf`;
  return reply
    .type('application/pdf')
    .header('cache-control', 'private, no-store')
    .header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(file)}`)
    .send(body);
}

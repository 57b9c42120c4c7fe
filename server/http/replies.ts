import type { FastifyReply } from 'fastify';

/** Sends the image of a page. It never changes: a document with other pages is another document. */
export function sendPage(reply: FastifyReply, png: Buffer): FastifyReply {
  return reply.type('image/png').header('cache-control', 'private, max-age=604800, immutable').send(png);
}

/** Sends an image to a client, without caching: a borrowed browser retains nothing once the link has ended. */
export function sendForVisit(reply: FastifyReply, png: unknown): FastifyReply {
  return reply.type('image/png').header('cache-control', 'private, no-store').send(png);
}

/** Sends a picture of a hand. Its name is its fingerprint, so it never changes. */
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

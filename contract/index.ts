/** What crosses the wire, for server and application alike. */
export * from './schemas';
export * from './views';
export * from './facts';
export * from './routes';
export * from './openapi';

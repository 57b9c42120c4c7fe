/** What crosses the wire, for server and application alike. */
export * from './schemas';
export * from './views';
export * from './routes';
export * from './openapi';

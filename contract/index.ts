/** What crosses the wire, for server and application alike. */
export * from './schemas';
export * from './views';
export * from './signing-views';
export * from './facts';
export { isId, UNCLEAN } from './fields';
export * from './limits';
export * from './paths';
export * from './routes';
export * from './openapi';

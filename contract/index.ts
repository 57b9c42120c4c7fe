/**
 * What crosses the wire, for whoever shows or fills it: the schemas of what goes in, and the types of what comes out. What a
 * whole route is stands in `@gatepath/contract/routes`: the server needs that, screens do not.
 */
export * from './schemas';
export type * from './views';
export type * from './signing-views';
export type * from './own-schemas';
export * from './facts';
export { UNCLEAN } from './fields';
export * from './limits';
export * from './lists';
export * from './paths';
export type { ProblemCode, ProblemDetails } from './problems';

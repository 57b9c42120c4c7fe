/** Every route by name, and what can be inferred of one. */
import type * as yup from 'yup';
import type { RouteName } from './paths';
import type { OtherAnswer, ProblemOf, Route } from './route';
import { ceremonyRoutes } from './routes-ceremony';
import { dealRoutes } from './routes-deals';
import { incomingRoutes } from './routes-incoming';
import { memoryRoutes } from './routes-memory';
import { noticeRoutes } from './routes-notices';
import { officeRoutes } from './routes-office';
import { openRoutes } from './routes-open';
import { shelfRoutes } from './routes-shelf';

/** All routes by name. */
export const routes = {
  ...openRoutes,
  ...dealRoutes,
  ...officeRoutes,
  ...shelfRoutes,
  ...memoryRoutes,
  ...incomingRoutes,
  ...noticeRoutes,
  ...ceremonyRoutes,
} satisfies Record<RouteName, Route>;
type Routes = typeof routes;

/** The routes with what is wanted where it does not matter which one it is. */
export const allRoutes = Object.entries(routes) as [RouteName, Route][];

type Inside<S> = S extends yup.ISchema<infer T> ? T : undefined;
/** What a route answers with: what its schema says, or nothing that could be read as JSON. */
export type AnswerOf<N extends RouteName> = Routes[N]['answer'] extends OtherAnswer
  ? void
  : Inside<Routes[N]['answer']>;
/** What goes into a route as JSON; `undefined` where nothing does. */
export type BodyOf<N extends RouteName> = Routes[N] extends { body: infer B } ? Inside<B> : undefined;
/** Type of a route's query. */
export type QueryOf<N extends RouteName> = Routes[N] extends { query: infer Q } ? Inside<Q> : undefined;
/** Routes whose answer is JSON or nothing: those that a screen calls and reads. */
export type JsonRoute = {
  [N in RouteName]: Routes[N]['answer'] extends OtherAnswer<'bytes' | 'events'> ? never : N;
}[RouteName];
/** Routes that take one file. */
export type FileRoute = { [N in RouteName]: Routes[N] extends { body: { kind: 'file' } } ? N : never }[RouteName];
/** Routes by who may call them. */
export type RouteOf<W extends Route['who']> = { [N in RouteName]: Routes[N]['who'] extends W ? N : never }[RouteName];
/** What may go wrong with a route. */
export type RouteProblem<N extends RouteName> = ProblemOf<Routes[N]>;

/** The whole contract: every route with its schemas and its problems, and the description that is made of them. */
export {
  allRoutes,
  type AnswerOf,
  type BodyOf,
  type FileRoute,
  type JsonRoute,
  type QueryOf,
  type RouteOf,
  type RouteProblem,
  routes,
} from './routes';
export { type AnySchema, isFile, isOther, type OtherAnswer, problemsOf, type Route, type Who } from './route';
export {
  codeOf,
  codeOfRefusal,
  dashed,
  type PaperCode,
  type ProblemCode,
  type ProblemDetails,
  PROBLEMS,
} from './problems';
export { openApi } from './openapi';

/** Holds every answer against the API's description, as an outside programmer has it. */
import Ajv2020, { type ValidateFunction } from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import type { RouteName } from '@gatepath/contract';
import { codeOf, isOther, openApi, problemsOf, routes, type Route } from '@gatepath/contract/routes';
import type { Answer } from '../in-process';

const description = openApi('test', 'http://localhost');
const ajv = new Ajv2020({ strict: false, allErrors: false });
addFormats(ajv);
ajv.addSchema(description, 'api');
const compiled = new Map<RouteName, ValidateFunction>();

/** Returns the validator of a route’s answer on success. */
function answerValidator(name: RouteName): ValidateFunction {
  const { path, method }: Route = routes[name];
  const at = ['paths', path.replace(/:(\w+)/g, '{$1}'), method.toLowerCase(), 'responses', '200', 'content'];
  const pointer = [...at, 'application/json', 'schema']
    .map((p) => p.replace(/~/g, '~0').replace(/\//g, '~1'))
    .join('/');
  const check = compiled.get(name) ?? ajv.compile({ $ref: `api#/${encodeURI(pointer)}` });
  compiled.set(name, check);
  return check;
}

/**
 * Validates an answer.
 *
 * @throws when an answer is not what the description says, or a problem is none that the route may have
 */
export function validateAnswer(name: RouteName, answer: Answer<unknown>): void {
  const route: Route = routes[name];
  if (answer.status >= 400) {
    const code = codeOf(answer.problem.type);
    if (!code || !problemsOf(route).includes(code))
      throw new Error(`${name} answered with ${answer.problem.type}, which its route does not tell of`);
    return;
  }
  if (isOther(route.answer)) {
    if (route.answer.kind === 'nothing' && answer.status !== 204)
      throw new Error(`${name} answered ${answer.status}, and not that there is nothing to tell`);
    return;
  }
  // What travels compressed is looked at by the tests that unpack it.
  if (answer.body === null) return;
  const check = answerValidator(name);
  if (!check(answer.body)) {
    const [error] = check.errors ?? [];
    throw new Error(
      `${name} is not as told: ${error?.instancePath} ${error?.message} ${JSON.stringify(error?.params)}`,
    );
  }
}

import { Problem } from '@melto/services/kernel/problem';
import { problemResponse } from './respond';

/** Answers one method at one address. */
export type Handler = (
  request: Request,
  next: { readonly params: Promise<Record<string, string>> },
) => Response | Promise<Response>;

/** What is answered at one address. */
export type Route = Partial<Record<'GET' | 'POST' | 'PUT', Handler>>;

/** Routes by their address, with its parameters in braces. */
export type Routes = Readonly<Record<string, Route>>;

interface Step {
  /** What follows each word of an address. */
  readonly words: Map<string, Step>;
  /** What follows where any word may stand: a parameter. */
  any: Step | undefined;
  route: { readonly route: Route; readonly names: readonly string[] } | undefined;
}

const newStep = (): Step => ({ words: new Map(), any: undefined, route: undefined });

/** The address as words, without the leading `/api/`. */
const wordsOf = (path: string): string[] => path.split('/').slice(2);

function treeOf(routes: Routes): Step {
  const root = newStep();
  for (const [path, route] of Object.entries(routes)) {
    const names: string[] = [];
    let step = root;
    for (const word of wordsOf(path)) {
      if (word.startsWith('{')) {
        names.push(word.slice(1, -1));
        step = step.any ??= newStep();
      } else {
        const next = step.words.get(word) ?? newStep();
        step.words.set(word, next);
        step = next;
      }
    }
    step.route = { route, names };
  }
  return root;
}

/** What is at an address: its own word goes before a parameter. */
function find(
  step: Step,
  words: readonly string[],
  given: readonly string[] = [],
): { readonly route: Route; readonly params: Record<string, string> } | undefined {
  const [word, ...rest] = words;
  if (word === undefined) {
    if (step.route === undefined) return undefined;
    const { route, names } = step.route;
    return { route, params: Object.fromEntries(names.map((name, i) => [name, given[i] as string])) };
  }
  const named = step.words.get(word);
  return (
    (named && find(named, rest, given)) ??
    (step.any === undefined ? undefined : find(step.any, rest, [...given, word]))
  );
}

/**
 * Answers every address of the API by its table, in the one entry that the framework has for them: an entry for each
 * made it bundle the whole house a hundred and seventy times (decision 0028).
 */
export function dispatcherOf(
  routes: Routes,
): (request: Request, next: { readonly params: Promise<{ path: string[] }> }) => Promise<Response> {
  const root = treeOf(routes);
  return async (request, { params }) => {
    const { path } = await params;
    const found = find(root, path);
    if (found === undefined)
      return problemResponse(
        new Problem(
          'not-found',
          'There is nothing at this address.',
          'GET /api/openapi.json tells them all.',
        ),
      );
    // Whoever asks for the head of an answer gets what is told without its body, which the framework leaves out.
    const method = request.method === 'HEAD' ? 'GET' : request.method;
    const handler = Object.hasOwn(found.route, method) ? found.route[method as keyof Route] : undefined;
    if (handler === undefined) return notThisMethod(found.route);
    return handler(request, { params: Promise.resolve(found.params) });
  };
}

function notThisMethod(route: Route): Response {
  const methods = (['GET', 'POST', 'PUT'] as const).filter((method) => route[method] !== undefined);
  const response = problemResponse(
    new Problem(
      'wrong-method',
      'This address does not take that method.',
      `It takes ${methods.join(' and ')}.`,
    ),
  );
  response.headers.set('allow', methods.join(', '));
  return response;
}

import { HttpHeaders, HttpResponse, type HttpInterceptorFn } from '@angular/common/http';
import { from, of, switchMap } from 'rxjs';

/** Answers asked for as soon as the page is there, while the application is still being loaded; each is used once. */
const asked = new Map<string, Promise<Response | null>>();

const askEarly = (url: string): void => {
  asked.set(
    url,
    fetch(url, { headers: { Accept: 'application/json' } })
      .then((response) => (response.ok ? response : null))
      .catch(() => null),
  );
};

/** Asks for who is signed in, and for the study that the address names. */
export const askForPage = (path: string): void => {
  const [, study] = /^\/studies\/([0-9a-f-]{36})(?:\/|$)/.exec(path) ?? [];
  askEarly('/api/me');
  if (study !== undefined) askEarly(`/api/studies/${study}`);
};

/** Gives the answer that was asked for early; where it was none, the server is asked as ever. */
export const earlyAnswers: HttpInterceptorFn = (request, next) => {
  const early = request.method === 'GET' ? asked.get(request.urlWithParams) : undefined;
  if (early === undefined) return next(request);
  asked.delete(request.urlWithParams);
  return from(early).pipe(
    switchMap((response) =>
      response === null
        ? next(request)
        : from(response.json()).pipe(
            switchMap((body: unknown) =>
              of(new HttpResponse({ body, status: response.status, headers: new HttpHeaders(response.headers), url: request.url })),
            ),
          ),
    ),
  );
};

import { HttpClient, provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { firstValueFrom } from 'rxjs';
import { askForPage, earlyAnswers } from './early-answers';

const STUDY = '17dec4f1-5566-41a8-ac08-60007ec778e4';
const tick = (): Promise<void> => new Promise((done) => setTimeout(done));

describe('answers asked for while the application loads', () => {
  let asked: string[] = [];
  const answer = (status: number, body: unknown): void => {
    asked = [];
    globalThis.fetch = ((url: string) => {
      asked.push(url);
      const headers = new Headers({ 'X-Role': 'lead' });
      return Promise.resolve({ ok: status === 200, status, headers, json: () => Promise.resolve(body) } as Response);
    }) as typeof fetch;
  };
  const before = globalThis.fetch;
  afterEach(() => (globalThis.fetch = before));
  const http = (): readonly [HttpClient, HttpTestingController] => {
    TestBed.configureTestingModule({ providers: [provideHttpClient(withInterceptors([earlyAnswers])), provideHttpClientTesting()] });
    return [TestBed.inject(HttpClient), TestBed.inject(HttpTestingController)];
  };

  it('are those of the person and of the study in the address', () => {
    answer(200, {});
    askForPage(`/studies/${STUDY}/bench/record`);
    expect(asked).toEqual(['/api/me', `/api/studies/${STUDY}`]);
    answer(200, {});
    askForPage('/sign-in');
    expect(asked).toEqual(['/api/me']);
  });
  it('are used once, with their headers; then the server is asked as ever', async () => {
    answer(200, { revision: 7 });
    askForPage(`/studies/${STUDY}`);
    const [client, server] = http();
    const first = await firstValueFrom(client.get(`/api/studies/${STUDY}`, { observe: 'response' }));
    expect([first.body, first.headers.get('X-Role')]).toEqual([{ revision: 7 }, 'lead']);
    const second = firstValueFrom(client.get(`/api/studies/${STUDY}`));
    await tick();
    server.expectOne(`/api/studies/${STUDY}`).flush({ revision: 8 });
    expect(await second).toEqual({ revision: 8 });
  });
  it('that were refused are asked for again, so that the refusal is told by the usual way', async () => {
    answer(401, {});
    askForPage(`/studies/${STUDY}`);
    const [client, server] = http();
    const told = firstValueFrom(client.get(`/api/studies/${STUDY}`)).catch((e: unknown) => (e as { status: number }).status);
    await tick();
    server.expectOne(`/api/studies/${STUDY}`).flush({}, { status: 401, statusText: 'signed out' });
    expect(await told).toBe(401);
  });
});

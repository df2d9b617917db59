import { Injector, runInInjectionContext } from '@angular/core';
import { Api } from './api';
import { OWNER_HERE } from './owner';

describe('the interface of the server', () => {
  const answers = (headers: Record<string, string>, body: unknown = {}, status = 200): Response =>
    new Response(JSON.stringify(body), { status, headers });
  const api = (owner = ''): Api =>
    runInInjectionContext(
      Injector.create({ providers: [{ provide: OWNER_HERE, useValue: owner }] }),
      () => new Api(),
    );
  const yesterday = new Date(Date.now() - 86_400_000).toUTCString();

  it('tells the clock by an answer of now alone: one that was kept somewhere is as old as it was kept', async () => {
    const asked = spyOn(window, 'fetch');
    const one = api();
    asked.and.resolveTo(
      answers({ 'date': yesterday, 'cache-control': 'private, max-age=31536000, immutable' }),
    );
    await one.profile('x');
    expect(one.clockAheadS()).toBe(0);
    asked.and.resolveTo(answers({ 'date': yesterday, 'cache-control': 'no-store' }));
    await one.me();
    expect(Math.round(one.clockAheadS() / 3600)).toBe(24);
  });

  it('says with every call whose work it is, and hears that another is signed in', async () => {
    const asked = spyOn(window, 'fetch').and.resolveTo(
      answers({}, { type: 'urn:tactron:problem:otherAccount', title: 'Another.' }, 409),
    );
    const one = api('a-person');
    await expectAsync(one.signOut()).toBeRejected();
    const headers = asked.calls.mostRecent().args[1]?.headers as Headers;
    expect([headers.get('x-account'), one.otherAccount()]).toEqual(['a-person', true]);
  });
});

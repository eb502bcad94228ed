import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideHttpClient } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { openBench, Seen } from '../testing/bench';
import { browserOf } from '../shared/browser';
import { Sessions } from './sessions';

describe('The sessions', () => {
  const LINUX = 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) HeadlessChrome/140.0.0.0 Safari/537.36';
  const PHONE = 'Mozilla/5.0 (Android 15; Mobile; rv:140.0) Gecko/140.0 Firefox/140.0';
  const one = (key: string, agent: string, here: boolean) => ({
    key,
    agent,
    here,
    createdAt: '2026-11-20T08:00:00Z',
    seenAt: '2026-11-27T08:00:00Z',
    expiresAt: '2026-12-04T12:00:00Z',
  });
  const open = async () => {
    openBench(undefined, [{ path: '**', children: [] }], [provideHttpClient(), provideHttpClientTesting()]);
    const http = TestBed.inject(HttpTestingController);
    const seen = await Seen.of(Sessions);
    http.expectOne('/api/trail').flush({ notes: [], next: null });
    http.expectOne('/api/sessions').flush({ sessions: [one('a', LINUX, true), one('b', PHONE, false)] });
    await seen.settle();
    return { http, seen };
  };

  it('are listed by browser, and ended one by one', async () => {
    const { http, seen } = await open();
    expect(seen.texts('.name')).toEqual(['Chromium on Linux', 'Firefox on Android']);
    expect(seen.texts('li')[0]).toMatch(/since 20 Nov, \d\d:00 · ends 4 Dec this browser Sign out$/);
    seen.element.querySelector<HTMLElement>('[aria-label="Sign out Firefox on Android"]')!.click();
    http.expectOne({ method: 'DELETE', url: '/api/sessions/b' }).flush({ title: 'It can’t be' }, { status: 503, statusText: '' });
    await seen.settle();
    expect(seen.text('.refusal')).toBe('It can’t be');
    seen.element.querySelector<HTMLElement>('[aria-label="Sign out Firefox on Android"]')!.click();
    http.expectOne({ method: 'DELETE', url: '/api/sessions/b' }).flush(null);
    await seen.settle();
    expect([seen.texts('.name'), seen.text('.refusal')]).toEqual([['Chromium on Linux'], '']);
  });

  it('are left from this browser by the way home', async () => {
    const { http, seen } = await open();
    await TestBed.inject(Router).navigate(['/sessions']);
    seen.element.querySelector<HTMLElement>('[aria-label="Sign out Chromium on Linux"]')!.click();
    http.expectOne({ method: 'DELETE', url: '/api/session' }).flush(null);
    await seen.settle();
    expect(TestBed.inject(Router).url).toBe('/');
  });

  it('call a browser by a name that people know', () => {
    expect(browserOf('Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 Chrome/140.0 Safari/537.36 Edg/140.0')).toBe(
      'Edge on Windows',
    );
    expect(browserOf('Mozilla/5.0 (Macintosh; Intel Mac OS X 14_0) AppleWebKit/605.1.15 Version/18.0 Safari/605.1.15')).toBe(
      'Safari on macOS',
    );
    expect([browserOf('a harbour client'), browserOf(' ')]).toEqual(['a harbour client', 'A browser that does not say its name']);
  });
});

import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { hashOfBytes, type Evidence } from '@tactron/core/job';
import { LocalStore, SHELF } from '../job-state/local-store';
import { OpenJob } from '../job-state/open-job';
import { MapShelf } from '../job-state/testing/map-shelf';
import { attachmentsOf } from '@tactron/core/job';
import { Attachments } from './attachments';

describe('pictures and files as evidence', () => {
  const recorded: { kind: string; subject: string; body: Record<string, unknown> }[] = [];
  let attachments: Attachments;
  beforeEach(() => {
    recorded.length = 0;
    const open = {
      state: signal({ id: 'j' }),
      record: (kind: string, subject: string, body: Record<string, unknown>) =>
        recorded.push({ kind, subject, body }),
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: OpenJob, useValue: open },
        { provide: SHELF, useFactory: () => new MapShelf() },
      ],
    });
    attachments = TestBed.inject(Attachments);
  });

  const picture = async (width: number, height: number): Promise<File> => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [width, height];
    const pen = canvas.getContext('2d') as CanvasRenderingContext2D;
    for (let i = 0; i < 400; i++) {
      pen.fillStyle = `hsl(${(i * 77) % 360} 80% 50%)`;
      pen.fillRect((i * 131) % width, (i * 57) % height, 60, 40);
    }
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
    return new File([blob as Blob], 'panel.png', { type: 'image/png' });
  };

  it('are kept here whole, named by their hash, with a small picture that fits into the record', async () => {
    const file = await picture(1600, 1200);
    await attachments.add(file, 'supply.line', 'before covers on');
    const [{ kind, subject, body }] = recorded;
    expect([kind, subject, body['name'], body['bytes'], body['note']]).toEqual([
      'attachment',
      'supply.line',
      'panel.png',
      file.size,
      'before covers on',
    ]);
    expect(body['sha256']).toBe(hashOfBytes(new Uint8Array(await file.arrayBuffer())));
    const kept = await TestBed.inject(LocalStore).file(String(body['sha256']));
    expect([kept?.body.size, kept?.sent]).toEqual([file.size, 0]);
    const small = await createImageBitmap(await (await fetch(String(body['thumbnail']))).blob());
    expect([small.width, small.height, String(body['thumbnail']).length <= 40_000]).toEqual([
      240,
      180,
      true,
    ]);
  });

  it('are refused in words when too large, empty or of a kind that is not taken, and nothing is recorded', async () => {
    const refusal = async (file: File): Promise<string> =>
      attachments.add(file, 'x').then(
        () => 'taken',
        (error: Error) => error.message,
      );
    expect(
      await refusal(new File([new Uint8Array(12_000_001)], 'large.jpg', { type: 'image/jpeg' })),
    ).toMatch(/large.jpg has 12.0 MB; up to 12 MB/u);
    expect(await refusal(new File([], 'none.pdf', { type: 'application/pdf' }))).toMatch(
      /none.pdf is empty/u,
    );
    expect(await refusal(new File(['<script>'], 'page.html', { type: 'text/html' }))).toMatch(
      /page.html is not taken/u,
    );
    expect(await refusal(new File(['<svg>'], 'drawing.svg', { type: 'image/svg+xml' }))).toMatch(
      /is not taken/u,
    );
    expect(recorded).toEqual([]);
    expect(await refusal(new File(['t;V'], 'log.csv', { type: '' }))).toBe('taken');
  });

  it('that were taken back or superseded stand no longer', () => {
    const e = (id: string, more: object = {}, body: object = {}) =>
      ({ id, kind: 'attachment', subject: 's', body, ...more }) as Evidence;
    const list = [
      e('a'),
      e('b', { supersedes: 'a' }, { withdrawn: true }),
      e('c'),
      e('d', { subject: 'other' }),
    ];
    expect(attachmentsOf(list, 's').map((x) => x.id)).toEqual(['c']);
    expect(attachmentsOf(list).map((x) => x.id)).toEqual(['c', 'd']);
  });
});

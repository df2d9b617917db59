import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { SaidCard } from '../../compute/compare.worker';
import { BehaviourCard } from './behaviour-card';

const card: SaidCard = {
  id: 'threeWire',
  name: 'Three-wire in the device',
  chosen: false,
  recommended: true,
  impossible: '',
  cost: '3 devices, 14 wires',
  scheme: {},
  outcomes: [
    { text: 'Power back: stays stopped', bad: false },
    { text: 'Letting go of a stop starts it', bad: true },
  ],
  hazards: [
    {
      severity: 'stop',
      mark: 'must fix',
      text: 'With S2 held, letting go of S1 starts the motor.',
    },
  ],
  strip: {
    endMs: 20_000,
    marks: [
      { atMs: 3000, text: 'start' },
      { atMs: 10_000, text: 'stop' },
    ],
    lines: [
      {
        id: 'supply.on',
        kind: 'supply',
        tag: '',
        top: 1,
        points: [
          [0, 1],
          [20_000, 1],
        ],
      },
      {
        id: 'device.hz',
        kind: 'output',
        tag: '',
        top: 50,
        points: [
          [0, 0],
          [3000, 0],
          [5000, -50],
          [10_000, -50],
          [12_000, 0],
          [20_000, 0],
        ],
      },
    ],
  },
};

describe('behaviour card', () => {
  async function bed(of: SaidCard) {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(BehaviourCard);
    fixture.componentRef.setInput('card', of);
    const picked: string[] = [];
    fixture.componentInstance.picked.subscribe((id) => picked.push(id));
    await fixture.whenStable();
    return { page: fixture.nativeElement as HTMLElement, picked };
  }

  it('tells a reader without eyes what the strip shows, part by part', async () => {
    const { page } = await bed(card);
    expect(page.querySelector('.strip')?.getAttribute('aria-label')).toBe(
      'start: runs in reverse; stop: stands still',
    );
  });

  it('marks what is grave by word and sign, not by colour alone', async () => {
    const { page } = await bed(card);
    expect([...page.querySelectorAll('.outcomes li')].map((li) => li.textContent?.trim())).toEqual([
      '■ Power back: stays stopped',
      '▲ Letting go of a stop starts it',
    ]);
    expect(page.querySelector('.hazard .mark')?.textContent).toBe('must fix');
    expect(page.querySelector('header .mark')?.textContent).toBe('recommended');
  });

  it('draws reverse below the line of zero', async () => {
    const { page } = await bed(card);
    expect(page.querySelector('.tall .zero')?.getAttribute('y1')).toBe('28');
    expect(page.querySelector('.lane:not(.tall) .zero')).toBeNull();
  });

  it('is picked by its button', async () => {
    const { page, picked } = await bed(card);
    (page.querySelector('footer button') as HTMLButtonElement).click();
    expect(picked).toEqual(['threeWire']);
  });

  it('that cannot be had says why and cannot be picked', async () => {
    const { page } = await bed({
      ...card,
      impossible: 'How it starts and stops: no setting.',
      strip: null,
    });
    expect(page.textContent).toContain('no setting');
    expect(page.querySelector('button')).toBeNull();
  });
});

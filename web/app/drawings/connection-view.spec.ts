import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { connectionDrawing } from '@tactron/core/drawings';
import type { Adopted } from '@tactron/core/job';
import { adopted, bareJob, marrowick } from '../../../core/testing/jobs';
import { layouter } from '../../../core/testing/layouter';
import { ConnectionView, type MovedEnd } from './connection-view';

interface Spot {
  readonly x: number;
  readonly y: number;
}

/** Terminals of a drawing by where they lie on the screen. */
const terminalsOf = (page: HTMLElement): { landing: string; at: Spot }[] =>
  [...page.querySelectorAll<SVGCircleElement>('circle[data-landing]')].map((c) => {
    const { x, y, width, height } = c.getBoundingClientRect();
    return { landing: c.dataset['landing'] ?? '', at: { x: x + width / 2, y: y + height / 2 } };
  });

/** Whether a spot can be pointed at and lies on no terminal. */
const isFree = ({ x, y }: Spot): boolean =>
  x > 0 &&
  y > 0 &&
  x < innerWidth &&
  y < innerHeight &&
  !document.elementsFromPoint(x, y).some((e) => e instanceof SVGElement && e.dataset['landing']);

const far = (p: Spot, q: Spot): number => Math.hypot(p.x - q.x, p.y - q.y);

describe('an end of a wire that is dragged', () => {
  /** Draws a job, drags an end of a wire to a spot of the drawing and lets it go. */
  async function dragged(
    spot: (terminals: ReturnType<typeof terminalsOf>, page: HTMLElement) => Spot | undefined,
  ): Promise<{
    moved: MovedEnd[];
    shown: number;
    terminals: ReturnType<typeof terminalsOf>;
    at: Spot;
  }> {
    const profile = marrowick();
    const job = adopted(bareJob());
    const drawing = await connectionDrawing(job.adopted as Adopted, profile, 'control', layouter());
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(ConnectionView);
    const moved: MovedEnd[] = [];
    fixture.componentInstance.moved.subscribe((m) => moved.push(m));
    fixture.componentRef.setInput('drawing', drawing);
    fixture.componentRef.setInput('movable', true);
    const page = fixture.nativeElement as HTMLElement;
    // In view whatever else the page shows.
    page.style.cssText = 'position: fixed; inset: 0; overflow: hidden; z-index: 9';
    await fixture.whenStable();
    // The drawing takes its size from the page a moment later.
    await new Promise((done) => setTimeout(done, 150));
    await fixture.whenStable();
    const end = page.querySelector<SVGCircleElement>('circle.end');
    const terminals = terminalsOf(page);
    const at = spot(terminals, page);
    if (!end || !at) throw new Error('nothing to drag, or nowhere to');
    const from = end.getBoundingClientRect();
    const mouse = (type: string, { x, y }: Spot, on: EventTarget = document): boolean =>
      on.dispatchEvent(
        new MouseEvent(type, { bubbles: true, clientX: x, clientY: y, buttons: 1, detail: 1 }),
      );
    mouse('mousedown', from, end);
    mouse('mousemove', { x: from.x + 20, y: from.y + 20 });
    mouse('mousemove', at);
    await fixture.whenStable();
    const shown = page.querySelectorAll('.terminal.target').length;
    mouse('mouseup', at);
    await new Promise((done) => setTimeout(done, 100));
    return { moved, shown, terminals, at };
  }

  it('lands on the nearest terminal within a finger’s width, which is shown before', async () => {
    const { moved, shown, terminals, at } = await dragged((all) =>
      all
        .flatMap(({ at: { x, y } }) => [
          { x: x - 16, y },
          { x: x + 16, y },
          { x, y: y - 16 },
          { x, y: y + 16 },
        ])
        .find(isFree),
    );
    const [nearest] = [...terminals].sort((p, q) => far(p.at, at) - far(q.at, at));
    expect(far(nearest.at, at)).toBeGreaterThan(4);
    expect(shown).toBeGreaterThan(0);
    expect(moved.map((m) => m.landing)).toEqual([nearest.landing]);
  });

  it('lands nowhere when it is let go far from every terminal', async () => {
    const { moved, shown } = await dragged((all, page) => {
      const { x, y, width, height } = page.getBoundingClientRect();
      for (let i = 1; i < 40; i++)
        for (let j = 1; j < 40; j++) {
          const at = { x: x + (width * i) / 40, y: y + (height * j) / 40 };
          if (isFree(at) && all.every((t) => far(t.at, at) > 30)) return at;
        }
      return undefined;
    });
    expect([shown, moved]).toEqual([0, []]);
  });
});

describe('a drawing worked by keys', () => {
  it('leads through every wire once, and stays at either end', async () => {
    const job = adopted(bareJob());
    const drawing = await connectionDrawing(
      job.adopted as Adopted,
      marrowick(),
      'control',
      layouter(),
    );
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(ConnectionView);
    fixture.componentRef.setInput('drawing', drawing);
    const picked: string[] = [];
    fixture.componentInstance.picked.subscribe((wire) => {
      picked.push(wire);
      fixture.componentRef.setInput('wire', wire);
    });
    await fixture.whenStable();
    const svg = (fixture.nativeElement as HTMLElement).querySelector(
      'svg[role=group]',
    ) as SVGElement;
    const press = async (key: string): Promise<void> => {
      svg.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      await fixture.whenStable();
    };
    const wires = new Set(drawing.lines.flatMap((l) => l.wires));
    expect(svg.tabIndex).toBe(0);
    for (let i = 0; i < wires.size; i++) await press('ArrowRight');
    expect(new Set(picked)).toEqual(wires);
    expect(picked.length).toBe(wires.size);
    await press('ArrowDown');
    expect(picked.at(-1)).toBe(picked.at(-2));
    await press('Home');
    expect(picked.at(-1)).toBe(picked[0]);
    await press('a');
    expect(picked.length).toBe(wires.size + 2);
  });
});

import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { connectionDrawing } from '@tactron/core/drawings';
import type { Adopted } from '@tactron/core/job';
import { adopted, bareJob, marrowick } from '../../../core/testing/jobs';
import { layouter } from '../../../core/testing/layouter';
import { ConnectionView, type MovedEnd } from './connection-view';

describe('an end of a wire that is dragged', () => {
  /** Draws a job and drags an end of a wire to a place beside a free terminal. @returns what was moved */
  async function dragged(besidePx: number): Promise<{ moved: MovedEnd[]; free: string }> {
    const profile = marrowick();
    const job = adopted(bareJob());
    const drawing = await connectionDrawing(job.adopted as Adopted, profile, 'control', layouter());
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(ConnectionView);
    const moved: MovedEnd[] = [];
    fixture.componentInstance.moved.subscribe((m) => moved.push(m));
    fixture.componentRef.setInput('drawing', drawing);
    fixture.componentRef.setInput('movable', true);
    fixture.nativeElement.style.width = '900px';
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    page.scrollIntoView();
    const rows = drawing.boxes.flatMap((b) => b.rows);
    const free = rows.findLast((r) => r.wire === undefined && r.side === 'start');
    const end = page.querySelector<SVGCircleElement>('circle.end');
    const at = page.querySelector(`circle[data-landing="${free?.landing}"]`);
    if (!free || !end || !at) throw new Error('nothing to drag, or nowhere to');
    const [from, to] = [end, at].map((e) => e.getBoundingClientRect());
    const mouse = (type: string, x: number, y: number, on: EventTarget = document): boolean =>
      on.dispatchEvent(
        new MouseEvent(type, { bubbles: true, clientX: x, clientY: y, buttons: 1, detail: 1 }),
      );
    const [x, y] = [to.x + to.width / 2 - besidePx, to.y + to.height / 2];
    mouse('mousedown', from.x + from.width / 2, from.y + from.height / 2, end);
    mouse('mousemove', from.x - 20, from.y + 20);
    mouse('mousemove', x, y);
    await fixture.whenStable();
    const shown = page.querySelectorAll('.terminal.target').length;
    mouse('mouseup', x, y);
    await new Promise((done) => setTimeout(done, 100));
    expect(shown).toBe(moved.length);
    return { moved, free: free.landing };
  }

  it('lands on the nearest terminal within a finger’s width, which is shown before', async () => {
    const { moved, free } = await dragged(16);
    expect(moved.map((m) => m.landing)).toEqual([free]);
  });

  it('lands nowhere when it is let go far from every terminal', async () => {
    const { moved } = await dragged(60);
    expect(moved).toEqual([]);
  });
});

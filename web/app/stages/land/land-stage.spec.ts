import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { connectionDrawing, drawnLandings } from '@tactron/core/drawings';
import { linkLines, movedEnd } from '@tactron/core/plan';
import { say } from '@tactron/core/words';
import type { Adopted, Job } from '@tactron/core/job';
import { Attachments } from '../../attachments/attachments';
import { Compute } from '../../compute/compute';
import { handOf } from '@tactron/core/said';
import { OpenJob } from '../../job-state/open-job';
import { adopted, bareJob, marrowick } from '../../../../core/testing/jobs';
import { layouter } from '../../../../core/testing/layouter';
import { LandStage } from './land-stage';

describe('land', () => {
  const profile = marrowick();
  const edits: { label: string; after: Job }[] = [];

  async function bed(
    job = adopted(bareJob({ direction: 'forwardOnly', speed: 'presets', presetsHz: [20, 35, 50] })),
  ) {
    edits.length = 0;
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        { provide: Attachments, useValue: {} },
        {
          provide: Compute,
          useValue: {
            drawings: () => ({
              connections: async ({ adopted }: Job) => {
                if (!adopted) return null;
                const lay = layouter();
                return {
                  control: await connectionDrawing(adopted, profile, 'control', lay),
                  power: await connectionDrawing(adopted, profile, 'power', lay),
                };
              },
              circuit: () => Promise.resolve(null),
            }),
            moved: (...args: Parameters<typeof movedEnd>) => {
              const move = movedEnd(...args);
              return Promise.resolve(move.ok ? move : { ok: false, text: say(move.said) });
            },
          },
        },
        {
          provide: OpenJob,
          useValue: {
            job: signal(job),
            profile: signal(profile),
            evidence: signal([]),
            state: signal({ id: 'j' }),
            derived: () => ({
              findings: [],
              names: {},
              links: linkLines(job, profile),
              ...handOf(job, profile),
              landings: {
                control: drawnLandings(job.adopted as Adopted, profile, 'control'),
                power: drawnLandings(job.adopted as Adopted, profile, 'power'),
              },
            }),
            edit: (label: string, recipe: (draft: Job) => void) => {
              const after = structuredClone(job);
              recipe(after);
              edits.push({ label, after });
            },
          },
        },
      ],
    });
    const fixture = TestBed.createComponent(LandStage);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    while (!page.querySelector('tac-connection-view')) {
      await new Promise((done) => setTimeout(done, 20));
      await fixture.whenStable();
    }
    const assigned = Object.entries(job.adopted?.assignments ?? {});
    const wireOf = (at: string): string =>
      Object.entries(job.adopted?.wires ?? {}).find(([, w]) => w.from === at || w.to === at)?.[0] ??
      '';
    const move = async (wire: string, end: 'from' | 'to', to: string): Promise<void> => {
      const number = job.adopted?.wires[wire].number;
      [...page.querySelectorAll<HTMLButtonElement>('button.number')]
        .find((b) => b.textContent?.trim() === number)
        ?.click();
      await fixture.whenStable();
      const select = page.querySelector<HTMLSelectElement>(
        `select[aria-label=${end}]`,
      ) as HTMLSelectElement;
      select.value = to;
      select.dispatchEvent(new Event('change'));
      await new Promise((done) => setTimeout(done));
      await fixture.whenStable();
    };
    return { fixture, page, job, assigned, wireOf, move };
  }

  it('lists every wire of the plan, those of the preset selector too, and draws those of the control', async () => {
    const { page, job } = await bed();
    const listed = [...page.querySelectorAll('tbody button.number')].map((b) =>
      b.textContent?.trim(),
    );
    const power = ['mains', 'neutral', 'motor', 'pe'];
    const wires = Object.values(job.adopted?.wires ?? {});
    expect(listed.sort()).toEqual(wires.map((w) => w.number).sort());
    const drawn = page.querySelectorAll('tac-connection-view polyline.line');
    expect([...drawn].map((l) => l.getAttribute('data-wire')).sort()).toEqual(
      Object.entries(job.adopted?.wires ?? {})
        .flatMap(([id, w]) => (power.includes(w.class) ? [] : [id]))
        .sort(),
    );
    const preset = Object.entries(job.adopted?.devices ?? {}).find(
      ([, d]) => d.kind === 'presetSelector',
    );
    expect(preset).toBeDefined();
    expect(page.querySelector('tbody[aria-label=Control]')?.textContent).toContain(
      `${preset?.[1].tag}:`,
    );
  });

  it('pins a function that moves with its wire to a free input, with the reason', async () => {
    const { job, assigned, wireOf, move } = await bed();
    const [fn, { at }] = assigned[0];
    const wire = wireOf(at);
    const taken = new Set(assigned.map(([, a]) => a.at));
    const free = Object.entries(profile.terminals)
      .filter(([, t]) => t.kind === 'digitalInput')
      .map(([t]) => `${job.adopted?.device}:${t}`)
      .find((x) => !taken.has(x)) as string;
    const end = job.adopted?.wires[wire].to === at ? 'to' : 'from';
    await move(wire, end, free);
    expect(edits[0].after.decisions.pins[fn]).toEqual({ at: free, why: 'moved on the drawing' });
    expect(edits[0].after.decisions.wires).toEqual({});
  });

  it('notes an end that was found elsewhere as built, and leaves the plan as it is', async () => {
    const { fixture, job, assigned, wireOf, page } = await bed();
    const [[, one], [, two]] = assigned;
    const wire = wireOf(one.at);
    const end = job.adopted?.wires[wire].to === one.at ? 'to' : 'from';
    page.querySelector<HTMLElement>(`tr[data-line="${wire}"]`)?.click();
    await fixture.whenStable();
    [...page.querySelectorAll<HTMLButtonElement>('.mover [role=radio]')]
      .find((b) => b.textContent?.includes('I found it so'))
      ?.click();
    await fixture.whenStable();
    const select = page.querySelector<HTMLSelectElement>(`.mover select[aria-label=${end}]`);
    if (!select) throw new Error('no end to move');
    select.value = two.at;
    select.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(edits[0].after.decisions).toEqual(job.decisions);
    expect(Object.values(edits[0].after.deviations).map((d) => d.actual)).toEqual([
      { kind: 'landed', wire, end, at: two.at },
    ]);
  });

  it('offers at a link every position but the planned one, and notes it as built', async () => {
    const { fixture, page } = await bed();
    const [id, link] = Object.entries(profile.links)[0];
    page.querySelector<HTMLElement>(`tr[data-line="link:${id}"]`)?.click();
    await fixture.whenStable();
    const choice = page.querySelector<HTMLSelectElement>('tac-found-otherwise select');
    if (!choice) throw new Error('nothing to choose');
    expect(choice.options.length).toBe(Object.keys(link.positions).length);
    choice.selectedIndex = 1;
    choice.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    [...page.querySelectorAll<HTMLButtonElement>('tac-found-otherwise button')].at(-1)?.click();
    const [{ actual, where }] = Object.values(edits[0].after.deviations);
    expect(actual).toEqual(jasmine.objectContaining({ kind: 'link', link: id }));
    expect(where).toEqual({ kind: 'device', id });
  });

  it('notes what an end is joined with only when both are named, and every part that may be found dead', async () => {
    const { fixture, page, job, assigned, wireOf } = await bed(
      adopted(bareJob({ lamps: ['running'] })),
    );
    const choose = async (label: string, value: string): Promise<void> => {
      const select = page.querySelector<HTMLSelectElement>(
        `tac-found-otherwise select[aria-label="${label}"]`,
      );
      if (!select) throw new Error(`nothing to choose “${label}: ${value}” from`);
      select.value = value;
      select.dispatchEvent(new Event('change'));
      await fixture.whenStable();
    };
    const built = (): HTMLButtonElement =>
      [...page.querySelectorAll<HTMLButtonElement>('tac-found-otherwise button')].at(
        -1,
      ) as HTMLButtonElement;
    const [[, one], [, two]] = assigned;
    const wire = job.adopted?.wires[wireOf(one.at)];
    [...page.querySelectorAll<HTMLButtonElement>('button.number')]
      .find((b) => b.textContent?.trim() === wire?.number)
      ?.click();
    await fixture.whenStable();
    const meant = (): HTMLElement | undefined =>
      [...page.querySelectorAll<HTMLElement>('.mover button')].find((b) =>
        b.textContent?.includes('I found it so'),
      );
    meant()?.click();
    await fixture.whenStable();
    await choose('it is', `joined ${one.at}`);
    expect(built().disabled).toBeTrue();
    await choose('with', two.at);
    built().click();
    expect(Object.values(edits[0].after.deviations)[0]).toEqual(
      jasmine.objectContaining({
        where: { kind: 'landing', id: one.at },
        actual: { kind: 'short', a: one.at, b: two.at },
      }),
    );
    const { fails } = handOf(job, profile).toFit;
    expect(fails.length).toBeGreaterThan(0);
    for (const [i, { fault }] of fails.entries()) {
      // A second touch would leave the line.
      if (fault.device !== fails[i - 1]?.fault.device)
        page.querySelector<HTMLElement>(`tr[data-line="mount:${fault.device}"]`)?.click();
      await fixture.whenStable();
      await choose('it is', `fails ${fault.what} ${fault.which ?? ''}`);
      built().click();
      expect(Object.values(edits.at(-1)?.after.deviations ?? {})[0]?.actual).toEqual(fault);
    }
  });

  it('refuses in words where the terminal carries another function, and changes nothing', async () => {
    const { job, assigned, wireOf, move, page } = await bed();
    const [[, one], [, two]] = assigned;
    const wire = wireOf(one.at);
    const end = job.adopted?.wires[wire].to === one.at ? 'to' : 'from';
    await move(wire, end, two.at);
    expect(edits).toEqual([]);
    expect(page.querySelector('[role=alert]')?.textContent).toContain('already carries');
  });
});

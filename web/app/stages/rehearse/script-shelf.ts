import { Component, computed, inject, signal } from '@angular/core';
import type { Job } from '@tactron/core/job';
import { Icon } from '../../controls/icon';
import { saveFile } from '../../controls/save-file';
import { OpenJob } from '../../job-state/open-job';
import { RehearsalSession } from './session';

/** Scripts of the job: what was done is kept under a name, played again, renamed, exported as the file the command line reads. */
@Component({
  selector: 'tac-script-shelf',
  imports: [Icon],
  template: `
    <label class="named grow"
      >Keep what was done as a script
      <input
        class="field"
        maxlength="120"
        placeholder="name of the script"
        [value]="name()"
        (input)="name.set($any($event.target).value)"
    /></label>
    <button class="act" type="button" [disabled]="!session.log().length" (click)="keep()">
      <tac-icon name="record" /> Keep {{ session.log().length }} acts
    </button>
    @if (scripts().length) {
      <ul aria-label="Scripts">
        @for (s of scripts(); track s.id) {
          <li>
            <button class="act" type="button" (click)="play(s.id)">
              <tac-icon name="play" /> {{ s.name }}
            </button>
            <span class="soft small">{{ s.acts.length }} acts</span>
            <button
              class="act quiet"
              type="button"
              [attr.aria-label]="'Export ' + s.name"
              (click)="save(s.id)"
            >
              <tac-icon name="download" />
            </button>
            <button
              class="act quiet"
              type="button"
              [attr.aria-label]="'Remove ' + s.name"
              (click)="drop(s.id)"
            >
              <tac-icon name="close" />
            </button>
          </li>
        }
      </ul>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 14px;
      align-items: end;
    }
    .grow {
      flex: 1;
      max-width: 340px;
    }
    ul {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 18px;
      list-style: none;
      padding: 0;
      margin: 0;
      flex-basis: 100%;
    }
    li {
      display: flex;
      align-items: center;
      gap: 4px;
    }
  `,
})
export class ScriptShelf {
  protected readonly session = inject(RehearsalSession);
  private readonly open = inject(OpenJob);
  protected readonly name = signal('');
  protected readonly scripts = computed(() =>
    Object.entries(this.open.job()?.scripts ?? {})
      .map(([id, s]) => ({ id, ...s }))
      .sort((x, y) => x.ord - y.ord),
  );

  protected keep(): void {
    const name = this.name().trim() || `Script ${this.scripts().length + 1}`;
    const { id, script } = this.session.script(name, this.scripts().length + 1);
    this.open.edit('script kept', (draft: Job) => void (draft.scripts[id] = script));
    this.name.set('');
  }

  protected play(id: string): void {
    const script = this.open.job()?.scripts[id];
    if (script)
      this.session.restart(script.acts.map((act) => ({ t: Math.round(act.atMs * 1000), act })));
  }

  protected save(id: string): void {
    const script = this.open.job()?.scripts[id];
    if (script)
      saveFile(
        `${this.open.job()?.tag ?? 'job'} ${script.name}.script.json`,
        JSON.stringify(script.acts, null, 2),
        'application/json',
      );
  }

  protected drop(id: string): void {
    this.open.edit('script removed', (draft: Job) => void delete draft.scripts[id]);
  }
}
